using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Tests;

/// <summary>Random places of every kind that could be measured, for property tests.</summary>
internal static class RandomPlaces
{
    private static Length Inches(decimal value) => new(value, Unit.Inch, "");

    /// <summary>Lengths as people and instruments give them: sixteenths of an inch, millimetres, tenths of one.</summary>
    public static Gen<Length> Size(int least, int most) =>
        Gen.OneOf(
            Gen.Int[least * 16, most * 16].Select(n => Inches(n / 16m)),
            Gen.Int[least * 26, most * 25].Select(n => new Length(n, Unit.Millimetre, "")),
            Gen.Int[least * 260, most * 250].Select(n => new Length(n / 10m, Unit.Millimetre, "")),
            Gen.Int[least * 1000, most * 1000].Select(n => Inches(n / 1000m))
        );

    /// <summary>A polygon round a centre, simple by its making: corners on growing angles.</summary>
    public static readonly Gen<ImmutableArray<(int X, int Y)>> Simple = Gen.Select(Gen.Int[3, 20], Gen.Int[0, 100_000])
        .Select(
            (n, seed) =>
            {
                var random = new Random(seed);
                var angles = Enumerable
                    .Range(0, n)
                    .Select(i => (i + 0.1 + 0.8 * random.NextDouble()) * 2 * Math.PI / n);
                return angles
                    .Select(a =>
                    {
                        var r = 400 + random.Next(2000);
                        return ((int)Math.Round(r * Math.Cos(a)), (int)Math.Round(r * Math.Sin(a)));
                    })
                    .ToImmutableArray();
            }
        );

    private static readonly Gen<Outline> Outlines = Gen.OneOf(
        Gen.Select(Size(60, 400), Size(60, 400)).Select((a, b) => (Outline)new Rectangle(a, b)),
        Simple.Select(points =>
            (Outline)new Corners([.. points.Select(p => new Point(Inches(p.X / 8m), Inches(p.Y / 8m)))])
        ),
        // An L, and a U, walked either way.
        Gen.Select(Gen.Int[40, 200], Gen.Int[40, 200], Gen.Int[20, 39], Gen.Int[20, 39], Gen.Bool)
            .Select(
                (a, b, c, d, right) => (Outline)Walk(right, (a + c, 1), (b, 1), (c, -1), (d, 1), (a, 1), (b + d, 1))
            ),
        Gen.Select(Gen.Int[30, 90], Gen.Int[30, 90], Gen.Int[30, 90], Gen.Int[100, 200], Gen.Int[20, 90], Gen.Bool)
            .Select(
                (a, b, c, h, d, right) =>
                    (Outline)Walk(right, (a + b + c, 1), (h, 1), (c, 1), (d, -1), (b, -1), (d, 1), (a, 1), (h, 1))
            )
    );

    private static Walls Walk(bool right, params (int Inches, int Turn)[] walls) =>
        new(
            [
                .. walls.Select(
                    (w, i) => new WallRun(Inches(w.Inches), i == walls.Length - 1 ? 0 : w.Turn * (right ? 90 : -90))
                ),
            ]
        );

    private static readonly Gen<Opening> Openings = Gen.Select(
            Gen.Enum<OpeningKind>(),
            Size(10, 20),
            Size(10, 20),
            Gen.Int[1, 2],
            Size(2, 9),
            Gen.Int[0, 31]
        )
        .Select(
            (kind, w, h, n, depth, flags) =>
            {
                var floor = kind != OpeningKind.Window ^ (flags & 1) == 1;
                return new Opening(
                    kind,
                    w,
                    h,
                    n,
                    (flags & 2) > 0 ? depth : null,
                    (flags & 4) > 0,
                    (flags & 8) > 0 ? "A" : null,
                    floor,
                    !floor && (flags & 16) > 0 ? Inches(12.5m) : null,
                    null
                )
                {
                    Glazed = kind == OpeningKind.Door && (flags & 2) > 0,
                };
            }
        );

    private static readonly Gen<Shape> Shapes = Gen.OneOf(
        Gen.Select(Outlines, Size(80, 200), Gen.Int[0, 7], Size(84, 120), Size(8, 12))
            .Select(
                (outline, high, flags, other, island) =>
                    (Shape)
                        new Room(
                            outline,
                            high,
                            [],
                            (flags & 1) > 0 ? [new("B", other)] : [],
                            (flags & 2) > 0 ? [new("splash", Inches(24)), new("dado rail", Inches(40.25m))] : [],
                            (flags & 4) > 0 ? [new(new Rectangle(island, island), 1, null)] : []
                        )
            ),
        Gen.Select(Size(60, 400), Size(60, 400), Gen.Int[40, 90], Gen.Int[91, 160])
            .Select(
                (a, b, low, high) =>
                    (Shape)
                        new Room(
                            new Rectangle(a, b),
                            null,
                            [Inches(low), Inches(low), Inches(high), Inches(high)],
                            [],
                            [],
                            []
                        )
            ),
        Gen.Select(Size(100, 500), Size(90, 300), Gen.Int[1, 3], Size(50, 90), Gen.Bool)
            .Select(
                (w, h, n, rise, eaves) =>
                    (Shape)new Elevation([new(w, h, n), new(h, w, 1)], [new(w, rise, n)], eaves ? rise : null)
            ),
        Gen.Select(Outlines, Size(2, 30), Gen.Bool)
            .Select((outline, depth, deep) => (Shape)new Site(outline, null, null, deep ? depth : null, [])),
        Gen.Select(Size(10, 4000), Size(2, 40), Gen.Int[0, 2])
            .Select((l, w, how) => (Shape)new Run(l, how == 0 ? null : w, how == 2)),
        Gen.Select(Gen.Int[2, 40], Gen.Int[0, 41], Size(5, 9), Size(9, 14), Size(24, 90))
            .Select(
                (r, t, rise, going, wide) =>
                    (Shape)new Stair(r, t == 0 ? r - 1 : t, rise, going, wide, [new(wide, going, 2)])
            ),
        Gen.Select(Gen.Int[1, 500], Gen.Int[1, 9])
            .Select((a, b) => (Shape)new ItemSet([new("brass handles", a), new("boards 2 x 4", b)])),
        Gen.Const((Shape)new ItemSet([])),
        Gen.Const((Shape)new Unmeasured())
    );

    private static readonly Gen<string> Names = Gen.OneOf(
        new string[]
        {
            "Study",
            "Bay 2",
            "Room 3 x 4",
            "Long run",
            "Stair 2 rise",
            "Café",
            "Face: north",
            "L walls 3",
            "Site office 12",
            "Lost items 3 old",
            "Hall (old)",
            "A 1/2",
            "12",
            "-",
            "Not measured",
            "Front windows",
            "Side door 2",
            "Window: north",
        }
            .Select(Gen.Const)
            .ToArray()
    );

    /// <summary>A place as a tape line would say it; connections are left out, since they need another place.</summary>
    public static readonly Gen<TapeReading> Readings = Gen.Select(Names, Gen.Int[1, 4], Shapes, Openings.Array[0, 3])
        // Windows without their room are at least one.
        .Where((_, _, shape, openings) => shape is not ItemSet { TakesOpenings: true } || openings.Length > 0)
        .Select(
            (name, count, shape, openings) =>
            {
                var own = !shape.TakesOpenings
                    ? []
                    : openings.Select(o => shape is Room ? o : o with { Wall = null }).ToImmutableArray();
                return new TapeReading(name, count, shape, own, [.. own.Select(_ => (string?)null)]);
            }
        );
}
