using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Web.StandIns;

/// <summary>Goods as a supplier lists them.</summary>
/// <param name="Code">The supplier's code, which nothing else has.</param>
/// <param name="Name">What they are.</param>
/// <param name="Supplier">Who sells them.</param>
/// <param name="Category">The supplier's heading.</param>
/// <param name="Unit">Unit they are used in.</param>
/// <param name="Packs">How they are sold.</param>
/// <param name="Coverage">What one unit covers; null where the supplier does not say.</param>
/// <param name="Spread">Whether they cover something, so that their coverage must be known.</param>
/// <param name="Against">What the work with them is measured against; null for goods that are no work of their own.</param>
public sealed record CatalogueGoods(
    string Code,
    string Name,
    string Supplier,
    string Category,
    Unit Unit,
    IReadOnlyList<Pack> Packs,
    Ratio? Coverage,
    bool Spread,
    Measure? Against
);

/// <summary>What can be had of suppliers, beyond what stands in the Book.</summary>
public interface ISupplierCatalogue
{
    /// <summary>What it is called on screen.</summary>
    string Name { get; }

    /// <summary>Whether it only stands in for a real one.</summary>
    bool IsStandIn { get; }

    /// <summary>All goods, in the order of the catalogue.</summary>
    IReadOnlyList<CatalogueGoods> Goods { get; }
}

/// <summary>A made-up catalogue of a few thousand goods that ships with the program: families of goods in all their sizes, colours and finishes, each at a price that follows from these, always the same.</summary>
public sealed class StandInSupplierCatalogue : ISupplierCatalogue
{
    private static readonly Lazy<IReadOnlyList<CatalogueGoods>> All = new(() =>
        [.. Families().Select((goods, n) => goods with { Code = $"{Initials(goods.Supplier)}-{10_001 + n}" })]
    );

    private static readonly string[] Colours =
    [
        "chalk",
        "cream",
        "oyster",
        "sand",
        "stone",
        "biscuit",
        "clay",
        "brick",
        "moss",
        "sea green",
        "harbour blue",
        "teal",
        "plum",
        "slate",
        "graphite",
        "black",
    ];

    private static readonly string[] Coloured = [.. Colours.Select(colour => ", " + colour)];

    private static readonly string[] Graded = ["", ", low odour", ", fast drying"];

    /// <inheritdoc/>
    public string Name => "Made-up supplier catalogue";

    /// <inheritdoc/>
    public bool IsStandIn => true;

    /// <inheritdoc/>
    public IReadOnlyList<CatalogueGoods> Goods => All.Value;

    private static string Initials(string supplier) => string.Concat(supplier.Split(' ').Select(word => word[0]));

    /// <summary>A price that ends as list prices do, a little different for each name.</summary>
    private static decimal Price(decimal about, string name)
    {
        var turn = name.Aggregate(17, (sum, c) => (sum * 31 + c) % 997);
        var price = about * (94 + turn % 13) / 100;
        return decimal.Max(decimal.Round(price * 20, 0, MidpointRounding.AwayFromZero) / 20, 0.05m);
    }

    private static Pack Pack(string name, decimal size, decimal about, string of) =>
        new(name, size, Price(about, of + name));

    /// <summary>Goods, still without a code.</summary>
    private static IEnumerable<CatalogueGoods> Families() =>
        [
            .. Liquids(
                "Interior paint",
                Measure.NetWallArea,
                "Ennis Paint Counter",
                46,
                "400 ft² per gal",
                ["Wall matt", "Washable matt", "Eggshell", "Satin", "Kitchen and bath", "Ceiling flat"],
                Coloured
            ),
            .. Liquids(
                "Exterior paint and stain",
                Measure.NetFaceArea,
                "Ennis Paint Counter",
                58,
                null,
                [
                    "Siding satin",
                    "Siding flat",
                    "Shingle stain, solid",
                    "Shingle stain, semi-clear",
                    "Masonry paint, smooth",
                    "Masonry paint, textured",
                    "Deck stain, solid",
                    "Deck oil",
                    "Trim gloss",
                    "Metal finish",
                ],
                Coloured
            ),
            .. Liquids(
                "Floor coatings",
                Measure.FloorArea,
                "Tidewater Coatings",
                74,
                null,
                [
                    "Floor paint, one part",
                    "Floor epoxy, base",
                    "Concrete stain",
                    "Gym floor lacquer",
                    "Anti-slip finish",
                ],
                Coloured
            ),
            .. Liquids(
                "Primers and sealers",
                Measure.NetWallArea,
                "Ennis Paint Counter",
                39,
                "350 ft² per gal",
                [
                    "Drywall primer",
                    "Masonry primer",
                    "Stain-blocking primer",
                    "Bonding primer",
                    "Wood primer",
                    "Metal primer",
                    "Sealer for limewash",
                    "Anti-mould wash",
                ],
                Graded
            ),
            .. Liquids(
                "Lot sealing",
                Measure.Area,
                "Headland Aggregates",
                21,
                null,
                [
                    "Pavement sealer, refined tar free",
                    "Pavement sealer, fast drying",
                    "Oil spot primer",
                    "Crack filler, pourable",
                    "Joint stabiliser",
                    "Line marking paint",
                ],
                Graded
            ),
            .. Tiles(
                "Wall tile",
                Measure.NetWallArea,
                [
                    "100 × 100 mm",
                    "150 × 150 mm",
                    "200 × 100 mm",
                    "200 × 200 mm",
                    "300 × 100 mm",
                    "300 × 200 mm",
                    "400 × 250 mm",
                    "600 × 300 mm",
                ],
                3.4m
            ),
            .. Tiles(
                "Floor tile",
                Measure.FloorArea,
                [
                    "200 × 200 mm",
                    "300 × 300 mm",
                    "450 × 450 mm",
                    "600 × 300 mm",
                    "600 × 600 mm",
                    "800 × 800 mm",
                    "900 × 200 mm plank",
                    "1200 × 200 mm plank",
                ],
                4.1m
            ),
            .. Sheets(
                "Carpet tile",
                Measure.FloorArea,
                "Ropewalk Trade Supply",
                ["loop", "cut pile", "ribbed", "entrance", "heavy loop", "striped"],
                2.9m,
                53.8m
            ),
            .. Sheets(
                "Sheet flooring",
                Measure.FloorArea,
                "Ropewalk Trade Supply",
                ["2.0 mm", "2.5 mm", "safety 2.0 mm", "acoustic 3.5 mm", "linoleum 2.5 mm"],
                3.3m,
                215.3m
            ),
            .. Sheets(
                "Plank flooring",
                Measure.FloorArea,
                "Ropewalk Trade Supply",
                ["oak, 14 mm", "ash, 14 mm", "vinyl, 5 mm", "laminate, 8 mm", "laminate, 10 mm"],
                4.6m,
                22.6m
            ),
            .. Lengths(
                "Skirting",
                Measure.SkirtingLength,
                ["bullnose", "chamfer", "square", "torus", "ogee", "stepped"],
                ["70 mm", "95 mm", "120 mm", "145 mm", "170 mm"],
                1.2m
            ),
            .. Lengths(
                "Cornice",
                Measure.CorniceLength,
                ["cove", "stepped", "swan", "egg and dart", "dentil"],
                ["75 mm", "100 mm", "127 mm", "150 mm"],
                1.7m
            ),
            .. Lengths(
                "Tile and floor trim",
                Measure.Length,
                ["edge", "quadrant", "stair nosing", "door strip", "ramp", "expansion joint"],
                ["6 mm", "8 mm", "10 mm", "12.5 mm"],
                1.1m
            ),
            .. Films(),
            .. Loose(),
            .. Pieces(),
        ]; // csharpier-ignore

    /// <summary>Liquids by the can and the pail, each in all its variants.</summary>
    private static IEnumerable<CatalogueGoods> Liquids(
        string category,
        Measure against,
        string supplier,
        decimal perGallon,
        string? coverage,
        string[] kinds,
        IEnumerable<string> variants
    ) =>
        from kind in kinds
        from variant in variants
        let name = kind + variant
        select new CatalogueGoods(
            "",
            name,
            supplier,
            category,
            Unit.Gallon,
            [Pack("1 gal can", 1, perGallon, name), Pack("5 gal pail", 5, perGallon * 4.6m, name)],
            coverage is null ? null : Ratio.Parse(coverage),
            true,
            against
        );

    private static IEnumerable<CatalogueGoods> Tiles(string what, Measure against, string[] sizes, decimal perFoot) =>
        from size in sizes
        from finish in new[] { "matt", "gloss", "textured" }
        from colour in Colours
        let name = $"{what} {size}, {finish}, {colour}"
        select new CatalogueGoods(
            "",
            name,
            "Slate Lane Tiles",
            what + "s",
            Unit.SquareFoot,
            [Pack("box of 10.8 ft²", 10.8m, perFoot * 10.8m, name)],
            Ratio.Parse("1 ft² per ft²"),
            true,
            against
        );

    private static IEnumerable<CatalogueGoods> Sheets(
        string what,
        Measure against,
        string supplier,
        string[] kinds,
        decimal perFoot,
        decimal pack
    ) =>
        from kind in kinds
        from colour in Colours
        let name = $"{what}, {kind}, {colour}"
        select new CatalogueGoods(
            "",
            name,
            supplier,
            what,
            Unit.SquareFoot,
            [Pack($"{Rounding.Text(pack)} ft²", pack, perFoot * pack, name)],
            Ratio.Parse("1 ft² per ft²"),
            true,
            against
        );

    private static IEnumerable<CatalogueGoods> Lengths(
        string what,
        Measure against,
        string[] shapes,
        string[] sizes,
        decimal perFoot
    ) =>
        from shape in shapes
        from size in sizes
        from stuff in new[] { "primed", "oak", "white PVC", "anodised" }
        let name = $"{what}, {shape} {size}, {stuff}"
        select new CatalogueGoods(
            "",
            name,
            "Ropewalk Trade Supply",
            what,
            Unit.Foot,
            [Pack("16 ft length", 16, perFoot * 16, name), Pack("8 ft length", 8, perFoot * 8.4m, name)],
            Ratio.Parse("1 ft per ft"),
            true,
            against
        );

    private static IEnumerable<CatalogueGoods> Films() =>
        from kind in new[]
        {
            "solar, outside",
            "solar, inside",
            "safety 4 mil",
            "safety 8 mil",
            "frosted",
            "privacy",
            "anti-graffiti",
            "UV clear",
        }
        from width in new[] { "36 in", "48 in", "60 in", "72 in" }
        from shade in new[] { "5 %", "20 %", "35 %", "50 %", "70 %" }
        let name = $"Glazing film, {kind}, {shade} light, {width} wide"
        select new CatalogueGoods(
            "",
            name,
            "Tidewater Coatings",
            "Glazing film",
            Unit.SquareFoot,
            [Pack("roll of 500 ft²", 500, 1150, name)],
            Ratio.Parse("1 ft² per ft²"),
            true,
            Measure.GlassArea
        );

    private static IEnumerable<CatalogueGoods> Loose() =>
        from row in new[]
        {
            (
                "Mulch",
                Unit.CubicYard,
                "yd³",
                38m,
                new[] { "pine bark", "hardwood", "cedar", "dyed red", "dyed black", "cocoa shell" }
            ),
            (
                "Gravel",
                Unit.ShortTon,
                "ton",
                44m,
                ["pea, 3/8 in", "crushed, 3/4 in", "crusher run", "river, 1 in", "amber, 3 mm", "slate chip"]
            ),
            ("Sand", Unit.ShortTon, "ton", 31m, ["bedding", "sharp", "jointing, kiln dried", "play"]),
            (
                "Fertiliser",
                Unit.Pound,
                "lb",
                1.1m,
                [
                    "spring 24-4-8",
                    "summer 20-0-10",
                    "autumn 12-4-20",
                    "starter 14-18-6",
                    "organic 6-2-4",
                    "slow release 32-0-8",
                ]
            ),
            (
                "Ice melter",
                Unit.Pound,
                "lb",
                0.6m,
                ["rock salt", "calcium pellets", "magnesium flake", "blend, pet safe", "sand and salt"]
            ),
            ("Grass seed", Unit.Pound, "lb", 3.9m, ["sun mix", "shade mix", "sports mix", "dune mix"]),
        }
        from kind in row.Item5
        from pack in new[] { (1m, "loose"), (40m, "bulk") }
        let name = $"{row.Item1}, {kind}, {pack.Item2}"
        let small = row.Item2 == Unit.Pound
        select new CatalogueGoods(
            "",
            name,
            "Headland Aggregates",
            row.Item1,
            row.Item2,
            [
                Pack(
                    small ? $"bag of {(pack.Item1 == 1 ? 20 : 50)} lb" : $"1 {row.Item3}",
                    small ? (pack.Item1 == 1 ? 20 : 50) : 1,
                    row.Item4 * (small ? (pack.Item1 == 1 ? 20 : 46) : (pack.Item1 == 1 ? 1 : 0.9m)),
                    name
                ),
            ],
            null,
            true,
            Measure.Area
        ); // csharpier-ignore

    private static IEnumerable<CatalogueGoods> Pieces() =>
        from row in new[]
        {
            (
                "Abrasives",
                new[] { "sanding sheet", "sanding disc", "sanding roll", "steel wool", "diamond cup" },
                new[] { "40 grit", "80 grit", "120 grit", "180 grit", "240 grit" },
                9m
            ),
            (
                "Rollers and brushes",
                ["roller sleeve", "mini roller", "flat brush", "angled brush", "block brush"],
                ["25 mm", "50 mm", "75 mm", "100 mm", "230 mm"],
                7m
            ),
            (
                "Masking",
                ["masking tape", "lining paper", "drop cloth", "film and tape", "floor board"],
                ["25 mm", "38 mm", "50 mm", "wide", "extra wide"],
                6m
            ),
            (
                "Fixings",
                ["drywall screw", "wood screw", "nail plug", "frame anchor", "decking screw", "panel pin"],
                ["25 mm", "35 mm", "42 mm", "60 mm", "80 mm", "100 mm"],
                11m
            ),
            (
                "Adhesive and grout",
                ["tile adhesive", "wall grout", "floor grout", "carpet adhesive", "panel adhesive", "silicone"],
                ["white", "grey", "beige", "anthracite", "clear"],
                16m
            ),
            (
                "Sign blanks",
                ["aluminium panel", "foam board", "acrylic panel", "edge trim kit", "stand-off kit", "laminate roll"],
                ["A4", "A3", "A2", "600 × 900 mm", "1200 × 2400 mm"],
                27m
            ),
        }
        from kind in row.Item2
        from size in row.Item3
        from grade in new[] { "", ", trade pack" }
        let name = $"{char.ToUpperInvariant(kind[0])}{kind[1..]}, {size}{grade}"
        select new CatalogueGoods(
            "",
            name,
            "Ropewalk Trade Supply",
            row.Item1,
            Unit.Each,
            [grade.Length == 0 ? Pack("each", 1, row.Item4, name) : Pack("box of 20", 20, row.Item4 * 16, name)],
            null,
            false,
            null
        ); // csharpier-ignore
}
