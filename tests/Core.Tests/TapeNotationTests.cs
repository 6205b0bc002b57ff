using CsCheck;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The notation, construct by construct: what each form comes to, and what is refused.</summary>
public class TapeNotationTests
{
    [Theory]
    // walls and turns
    [InlineData("L walls 20 r 10 r 8 l 6 r 12 r 16 x 9", "floorArea", 272)]
    [InlineData("L walls 20 right 10 right 8 left 6 right 12 right 16 right x 9", "floorArea", 272)]
    [InlineData("L sides 20r10r8l6r12r16 x 9", "perimeter", 72)]
    [InlineData("L walls 20' r 10' r 96\" l 6' r 12' r 16' x 9 x2", "grossWallArea", 648)]
    [InlineData("L walls 6.096 m r 10 r 8 l 1.8288 m r 12 r 16 x 9", "floorArea", 272)]
    [InlineData("Left l-shape walls 20 l 10 l 8 r 6 l 12 l 16 x 9", "floorArea", 272)]
    [InlineData("Hexagon walls 10 r60° 10 r60deg 10 r60° 10 r60° 10 r60° 10 x 8", "perimeter", 60)]
    // corners
    [InlineData("L corners 0,0 20,0 20,10 12,10 12,16 0,16 x 9", "floorArea", 272)]
    [InlineData("L corners 0,0 0,16 12,16 12,10 20,10 20,0 x 9", "floorArea", 272)]
    [InlineData("L corners -4,-4 16,-4 16,6 8,6 8,12 -4,12 x 9", "floorArea", 272)]
    [InlineData("L corners 0\",0\" 20'0,0 20'0,120\" 12'0,10'0 12'0,16'0 0,16'0 x 9", "floorArea", 272)]
    [InlineData("Triangle corners 0,0 3,0 0,4 x 10", "perimeter", 12)]
    // height per wall, sloped ceilings
    [InlineData("R 20 x 10 x 8; wall B 11", "grossWallArea", 510)]
    [InlineData("R 20 x 10 x 8; wall b 11; wall D 8'6", "grossWallArea", 515)]
    [InlineData("R 20 x 10 x 8; wall A 96\"", "grossWallArea", 480)]
    [InlineData("R 20 x 10 x 8; wall B 11", "volume", 1600)]
    [InlineData("L corners 0,0 20,0 20,10 12,10 12,16 0,16 x 9; wall D 10", "grossWallArea", 654)]
    [InlineData("Loft 14 x 10 slope 4, 4, 8, 8", "grossWallArea", 288)]
    [InlineData("Loft 14 x 10 slope 4 4 8 8", "volume", 840)]
    [InlineData("Loft 14 x 10 slope 4', 4', 8', 8' x2", "floorArea", 140)]
    [InlineData("Loft 14 x 10 slope 8 8 8 8", "ceilingArea", 140)]
    [InlineData("Loft corners 0,0 12,0 12,9 0,9 slope 8, 8, 20, 20", "ceilingArea", 180)]
    // islands
    [InlineData("Kitchen 20 x 16 x 9; island 6 x 3", "floorArea", 302)]
    [InlineData("Kitchen 20 x 16 x 9; island 2 x 2 x3", "perimeter", 96)]
    [InlineData("Kitchen 20 x 16 x 9; island 6 x 3 at 5,4", "grossWallArea", 810)]
    [InlineData("Kitchen 20 x 16 x 9; island corners 2,2 6,2 2,5", "floorArea", 314)]
    [InlineData("Kitchen 20 x 16 x 9; island walls 4 r 2 r 4 r 2", "volume", 2808)]
    // bands
    [InlineData("R 10 x 10 x 8; band splash to 4", "bands/1", 160)]
    [InlineData("R 10 x 10 x 8; band splash to 4", "bands/2", 160)]
    [InlineData("R 10 x 10 x 8; band base to 1; band dado to 3'6", "bands/2", 100)]
    [InlineData("R 10 x 10 x 8; band tile to 4; door 3 x 7", "bands/1", 148)]
    [InlineData("R 10 x 10 x 8; band tile to 4; window 3 x 4 at 3", "bands/1", 157)]
    [InlineData("Loft 14 x 10 slope 4, 4, 8, 8; band low to 6", "bands/2", 38)]
    // openings and what may be said of them
    [InlineData("R 10 x 10 x 8; door 3 x 7", "skirtingLength", 37)]
    [InlineData("Shop 20 x 20 x 9; door 3 x 7 glazed; door 3 x 6'8 x2; window 3 x 4 x6; window 2 x 2", "glassArea", 97)]
    [InlineData("Shop 20 x 20 x 9; door 3 x 7 glazed; door 3 x 6'8 x2; window 3 x 4 x6; window 2 x 2", "doorArea", 61)]
    [InlineData(
        "Shop 20 x 20 x 9; door 3 x 7 glazed; door 3 x 6'8 x2; window 3 x 4 x6; window 2 x 2",
        "windowArea",
        76
    )]
    [InlineData(
        "Shop 20 x 20 x 9; door 3 x 7 glazed; door 3 x 6'8 x2; window 3 x 4 x6; pass-through 5 x 7",
        "openingArea",
        168
    )]
    [InlineData("Shop 20 x 20 x 9; pass-through 5 x 7", "glassArea", 0)]
    [InlineData("Front face 40 x 18; window 3 x 5 x6; door 3 x 7 glazed", "glassArea", 111)]
    // windows without their room
    [InlineData("Front windows: window 3 x 4 x6; window 2 x 2", "glassArea", 76)]
    [InlineData("Front windows: window 3 x 4 x6; window 2 x 2", "count", 7)]
    [InlineData("Front windows: window 3 x 4 x6; window 2 x 2; x3", "windowArea", 76)]
    [InlineData("Front: windows 3 x 4 x6 deep 6\" sill", "revealArea", 42)]
    [InlineData("Entrances: door 3 x 7 x2; door 3 x 7 glazed", "glassArea", 21)]
    [InlineData("Front office window 3 x 4 x6", "glassArea", 72)]
    [InlineData("Front windows 3 x 4", "windowCount", 1)]
    [InlineData("Unit 2 window 3'6 x 4 x6; window 2 x 2", "windowCount", 7)]
    [InlineData("Front office window: 3 x 4 x 6", "volume", 72)]
    [InlineData("Window seat 3 x 4 x 6", "volume", 72)]
    [InlineData("R 10 x 10 x 8; d3x7;d3x7", "doorCount", 2)]
    [InlineData("R 10 x 10 x 8; w 3 x 4 x2", "windowCount", 2)]
    [InlineData("R 10 x 10 x 8; windows 3 x 4 x2 sill", "revealLength", 28)]
    [InlineData("R 10 x 10 x 8; window 3 x 4 deep 6\"", "revealArea", 5.5)]
    [InlineData("R 10 x 10 x 8; p 4 x 7 deep 6\"", "skirtingLength", 37)]
    [InlineData("R 10 x 10 x 8; pass-through 4 x 3 raised", "skirtingLength", 40)]
    [InlineData("R 10 x 10 x 8; window 4 x 7 floor", "skirtingLength", 36)]
    [InlineData("R 10 x 8 x 8; door 3 x 7 on B", "netWallArea", 267)]
    [InlineData("R 10 x 8 x 8; window 3 x 4 at 3' on c deep 4\" sill", "revealLength", 14)]
    [InlineData("R 10 x 8 x 8; door 3 x 7 into Hall", "doorCount", 1)]
    [InlineData("R 10 x 10 x 8; window 3 x 4 deep 150 mm", "revealArea", 5.413385826772)]
    [InlineData("R 10 x 10 x 8; window 3 x 4 x2 deep 0.5", "revealArea", 11)]
    [InlineData("R 10 x 10 x 8; door 3 x 7 deep 4 1/2\"", "revealArea", 6.375)]
    [InlineData("R 10 x 10 x 8; window 3 x 4 sill", "revealLength", 14)]
    [InlineData("R 10 x 10 x 8; window 3 x 4 sill deep 6\"", "revealArea", 7)]
    [InlineData("R 10 x 10 x 8; window 3 x 4 x3 sill at 2", "revealLength", 42)]
    [InlineData("R 10 x 10 x 8; band low to 4; window 3 x 4 at 2'6\"", "bands/1", 155.5)]
    [InlineData("R 10 x 10 x 8; band low to 4; window 3 x 4 x2 at 30\"", "bands/1", 151)]
    [InlineData("R 10 x 10 x 8; band low to 4; pass-through 4 x 3 raised at 3", "bands/1", 156)]
    [InlineData("R 10 x 10 x 8; band low to 4; window 3 x 4 at 4", "bands/1", 160)]
    [InlineData("R 10 x 8 x 8; d 3 x 7 on d; w 3 x 4 on B", "openingArea", 33)]
    [InlineData("R 10 x 8 x 8; wall B 10; window 3 x 9 on B", "openingArea", 27)]
    [InlineData("L walls 20 r 10 r 8 l 6 r 12 r 16 x 9; door 3 x 7 on F", "skirtingLength", 69)]
    [InlineData("R 10 x 8 x 8; door 3 x 7 raised", "skirtingLength", 36)]
    [InlineData("R 10 x 8 x 8; window 3 x 4 floor x2", "skirtingLength", -1)]
    [InlineData("R 10 x 8 x 8; window 3 x 7 x2 floor", "skirtingLength", 30)]
    [InlineData("R 10 x 8 x 8; pass-through 3 x 3 raised at 4", "skirtingLength", 36)]
    [InlineData("R 10 x 8 x 8; door 3 x 7 x2 into Hall; window 3 x 4", "openingCount", 3)]
    [InlineData("R 10 x 8 x 8; p 4 x 7 deep 6\" into Back hall 2", "skirtingLength", 33)]
    [InlineData("R 10 x 8 x 8; d3x7 into Hall;d3x7 into Study", "doorCount", 2)]
    [InlineData("R 10 x 8 x 8; door 3 x 7 on A deep 4\" into Hall", "revealLength", 17)]
    // counts
    [InlineData("R 10 x 8 x 8 x12", "floorArea", 80)]
    [InlineData("R 10 x 8 x 8; x 12", "floorArea", 80)]
    [InlineData("R 10 x 8 x 8 × 2", "floorArea", 80)]
    [InlineData("Court site 4 x 5; x2", "area", 20)]
    [InlineData("Front face 4 x 5; x9999", "grossFaceArea", 20)]
    // faces, gables, eaves
    [InlineData("Front face 40 x 18; gables 20 x 6 x2", "netFaceArea", 840)]
    [InlineData("Front face 40 x 18; gable 12'6 x 4", "grossFaceArea", 745)]
    [InlineData("Front face 40 x 18; gable 40 x 9; gable 10 x 3", "grossFaceArea", 915)]
    [InlineData("Front face 40 x 18; eaves 44", "eavesLength", 44)]
    [InlineData("Front face 40 x 18; eaves 40 + 2'6", "eavesLength", 42.5)]
    [InlineData("Front face 40 x 18; eaves 40'6\"; x2", "eavesLength", 40.5)]
    [InlineData("Front face 40 x 18; eaves 3.048 m", "eavesLength", 10)]
    [InlineData("Front face 40 x 18", "grossFaceArea", 720)]
    [InlineData("Front face 40 x 18 + 20 x 10", "grossFaceArea", 920)]
    [InlineData("Front face 40 x 18 x2", "eavesLength", 80)]
    [InlineData("Front face (30 + 10) x 18; gable 40 x 9", "grossFaceArea", 900)]
    [InlineData("Front face 40 x 18; gable 20 x 6 x2", "grossFaceArea", 840)]
    [InlineData("Front face 40 x 18; gable 24 x 9", "eavesLength", 16)]
    [InlineData("Front face 40 x 18; gable 40 x 9; eaves 12'", "eavesLength", 12)]
    [InlineData("Front face 40 x 18; window 3 x 5 x6; door 3 x 7", "netFaceArea", 609)]
    [InlineData("Front face 40 x 18; window 3 x 5 x6 deep 4\" sill; x3", "revealLength", 96)]
    // sites
    [InlineData("Court site 40 x 25", "area", 1000)]
    [InlineData("Court site 40 x 25 deep 6\"", "volume", 500)]
    [InlineData("Court site 24 x 15 + 10 x 10", "area", 460)]
    [InlineData("Court site 3200 ft2 around 240", "perimeter", 240)]
    [InlineData("Court site 0.5 acre", "area", 21780)]
    [InlineData("Court site corners 0,0 20,0 20,10 12,10 12,16 0,16; island 2 x 3 x2", "area", 260)]
    [InlineData("Court sides", "area", -1)]
    [InlineData("Court site sides 30 r 40 r 30 r 40", "perimeter", 140)]
    // runs
    [InlineData("Kerb run 44", "length", 44)]
    [InlineData("Kerb run 12 + 8 + 3'6", "length", 23.5)]
    [InlineData("Fascia run 120 wide 8\"", "area", 80)]
    [InlineData("Pipe run 60 girth 14\"", "area", 70)]
    [InlineData("Kerb run 44; x2", "length", 44)]
    // stairs
    [InlineData("Back stair 14 rise 7 1/2\" going 10\" wide 3'", "stepCount", 14)]
    [InlineData("Back stair 12 rise 6\" going 12\" wide 3", "developedArea", 51)]
    [InlineData("Back stairs 12 wide 3 going 12\" rise 6\" treads 12", "developedArea", 54)]
    [InlineData("Back stair 12 rise 6\" going 12\" wide 3; landing 3 x 4", "developedArea", 63)]
    [InlineData("Back stair 12 rise 6\" going 12\" wide 3; landing 3 x 4 x2", "edgeLength", 39)]
    [InlineData("Back stair 4 rise 1 going 1 wide 3 treads 3; x2", "stringerLength", 10)]
    [InlineData("Back stair 12 rise 6\" going 12\" wide 3; landing 3'6 x 4", "edgeLength", 36.5)]
    [InlineData("Back stair 12 rise 6\" going 12\" wide 3; landing 3 x 4; landing 3 x 3", "developedArea", 72)]
    [InlineData("Back stair 12 rise 6\" going 12\" wide 3; landings 36\" x 4' x3", "developedArea", 87)]
    // items
    [InlineData("Fittings items 12 handles", "count", 12)]
    [InlineData("Fittings items 12 handles, 4 notice boards", "count", 16)]
    [InlineData("Fittings items 12 handles, 4 notice boards", "items/2", 4)]
    [InlineData("Fittings items 1 fire door closer; x3", "count", 1)]
    [InlineData("Lost items items 3 boxes", "count", 3)]
    // names that end in a number or look like a size
    [InlineData("Bay 2 12 x 10 x 8", "floorArea", 120)]
    [InlineData("Bay 2 x 4: 12 x 10 x 8", "floorArea", 120)]
    [InlineData("Long run 12 x 10 x 8", "floorArea", 120)]
    [InlineData("Building site 12 x 10 x 8", "floorArea", 120)]
    [InlineData("Stair: 12 x 10 x 8", "floorArea", 120)]
    [InlineData("12 x 3: 12 x 10 x 8", "floorArea", 120)]
    [InlineData("Court: site 12 x 10", "area", 120)]
    public void Accepted(string line, string measure, double value)
    {
        if (value < 0)
        {
            Assert.NotNull(TapeLine.Read(line, UnitSystem.Feet).Refusal);
            return;
        }
        var measures = Sample.Measure(line);
        var found = Measures.Find(measure) is { } known
            ? measures.Has(known)
                ? measures[known].V
                : -1
            : measures.Extras.Single(e => e.Leaf == measure).Value.V;
        Assert.Equal(value, (double)found, 1e-9);
    }

    [Theory]
    // walls and turns
    [InlineData("L walls 20 r 10 r 8 l 6 r 12 r 15 x 9", "do not close")]
    [InlineData("L walls 20 10 20 10 x 9", "how it turns")]
    [InlineData("L walls 20 r 10 r x 9", "at least three corners")]
    [InlineData("L walls 20 r 10 r 20 r 10", "height is missing")]
    [InlineData("L walls 20 r200° 10 r 8 x 9", "below 180")]
    [InlineData("Bow walls 10 r135° 14.1421 l135° 10 l135° 14.1421 x 9", "cross or touch")]
    // corners
    [InlineData("L corners 0,0 20,0 x 9", "at least three corners")]
    [InlineData("L corners 0 0 20 0 20 10 x 9", "comma between")]
    [InlineData("Bow corners 0,0 10,10 10,0 0,10 x 9", "cross or touch")]
    [InlineData("Flat corners 0,0 10,0 20,0 x 9", "cross or touch")]
    // height per wall, slope
    [InlineData("R 20 x 10 x 8; wall E 11", "no wall E")]
    [InlineData("R 20 x 10 x 8; wall B", "height of wall B is missing")]
    [InlineData("R 20 x 10 x 8; wall B 9; wall B 10", "stands twice")]
    [InlineData("Loft 14 x 10 slope 4, 4, 8", "each of the 4 corners")]
    [InlineData(
        "Loft 14 x 10 slope 4, 4, 8, 9",
        "not in one plane: with the first three the fourth corner would be 8'"
    )]
    [InlineData("Loft 14 x 10 slope 4, 4, 8, 8; wall B 9", "from the corners alone")]
    // islands
    [InlineData("K 20 x 16 x 9; island 6", "width is missing")]
    [InlineData("K 20 x 16 x 9; island 20 x 16", "as large as")]
    [InlineData("K 20 x 16 x 9; island 6 x 3 at 17,4", "outside")]
    [InlineData("Loft 14 x 10 slope 4, 4, 8, 8; island 2 x 2", "say where")]
    // bands
    [InlineData("R 10 x 10 x 8; band to 4", "name, then to")]
    [InlineData("R 10 x 10 x 8; band a to 4; band b to 3", "go upwards")]
    [InlineData("R 10 x 10 x 8; band a to 3; band a to 4", "name of its own")]
    // openings
    [InlineData("R 10 x 8 x 8; door 3 x 7 on E", "no wall E")]
    [InlineData("R 10 x 8 x 8; window 9 x 4 on B", "larger than wall B")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 at 5", "larger than the largest wall")]
    [InlineData("R 10 x 8 x 8; door 3 x 7 at 1", "reaches the floor")]
    [InlineData("R 10 x 8 x 8; doorway 3 x 7", "begins with door")]
    [InlineData("R 10 x 8 x 8; door 3 x 7 into", "name of the place it leads into")]
    [InlineData("R 10 x 8 x 8; door 3 x 7 x13", "wider than the walls are long")]
    // faces, gables, eaves
    [InlineData("Front face 40", "height is missing")]
    [InlineData("Front face 40 x 18; gable 40", "rise is missing")]
    [InlineData("Front face 40 x 18; eaves", "length of the eaves is missing")]
    [InlineData("Front face 40 x 18; eaves 0", "more than zero")]
    [InlineData("Front face 40 x 18; window 3 x 5 on A", "no walls to name")]
    [InlineData("Front face 40 x 18; island 3 x 5", "begins with door")]
    [InlineData("Front face 10 x 10; window 9 x 9 x2", "larger than the face")]
    // sites
    [InlineData("Court site", "area is missing")]
    [InlineData("Court: site 24'", "an area")]
    [InlineData("Court site 3200 ft2 around", "length around is missing")]
    [InlineData("Court: site 3 x 4 x 5", "a volume, and an area is wanted")]
    [InlineData("Court site 3 x 4; door 3 x 7", "begins with island")]
    // runs
    [InlineData("Kerb run", "length is missing")]
    [InlineData("Kerb run 44 deep 3", "cannot be read here")]
    [InlineData("Kerb run -4", "more than zero")]
    // stairs
    [InlineData("Back stair 14 rise 7\" going 10\"", "width is missing")]
    [InlineData("Back: stair rise 7\" going 10\" wide 3", "how many risers")]
    [InlineData("Back stair 14 rise 7\" going 10\" wide 3; landing 3", "depth is missing")]
    [InlineData("Back stair 1 rise 7\" going 10\" wide 3", "single riser")]
    // items
    [InlineData("Fittings: items 12 x", "how many of what")]
    [InlineData("Fittings items 12", "1 to 120 characters")]
    [InlineData("Fittings items 12 handles,", "how many of what")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 deep", "depth is missing")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 deep 0", "more than zero")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 deep 4\" deep 5\"", "cannot be read here")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 sills", "cannot be read here")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 sill sill", "cannot be read here")]
    [InlineData("R 10 x 8 x 8; window sill", "width")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 at", "height of its bottom is missing")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 at -1", "more than zero")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 on", "no wall ")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 floor raised", "cannot be read here")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 raised raised", "cannot be read here")]
    [InlineData("R 10 x 8 x 8; window 3 x 4 ceiling", "cannot be read here")]
    [InlineData("Front face 40 x 18; window 3 x 5 into", "opening of a room leads into another")]
    [InlineData("R 10 x 8 x 8; door into Hall", "width")]
    [InlineData("Front face 40 x 18; gable x 9", "cannot be read as a width")]
    [InlineData("Front face 40 x 18; gable 40 x 0", "more than zero")]
    [InlineData("Front face 40 x 18; eaves 40 x 2", "cannot be read here")]
    [InlineData("Back stair 14 rise 7\" going 10\" wide 3; landing", "width is missing")]
    [InlineData("Back stair 14 rise 7\" going 10\" wide 3; landing 3 x 0", "more than zero")]
    [InlineData(": 12 x 10 x 8", "name first")]
    [InlineData("Bay 2 x 4: 12 x 10", "height is missing")]
    [InlineData("Court: site", "area is missing")]
    [InlineData("not measured", "size after its name")]
    [InlineData("Study not measured x2", "size after its name")]
    [InlineData("Study not measured; door 3 x 7", "Only a count")]
    // whole numbers with a point before a stroke are no fractions
    [InlineData("R 8'5./8 x 10 x 8", "cannot be read here")]
    [InlineData("R 5./8\" x 10 x 8", "cannot be read here")]
    [InlineData("R 8'00005/8\" x 10 x 8", "Put x before")]
    [InlineData("R 12345/8\" x 10 x 8", "Put x before")]
    [InlineData("R 1/0\" x 10 x 8", "halves, quarters")]
    // counts
    [InlineData("Kerb run 44; x0", "1 to 9999")]
    [InlineData("Kerb run 44; x 2.5", "whole count")]
    [InlineData("Kerb run 44; x", "whole count")]
    public void Refused(string line, string says)
    {
        var (reading, refusal) = TapeLine.Read(line, UnitSystem.Feet);
        Assert.True(reading is null, "it was read");
        Assert.Contains(says, refusal!.Message);
    }

    [Theory]
    [InlineData(Kind.Area, "24 x 15 + 10 x 10", 460)]
    [InlineData(Kind.Area, "(4 + 2) x 3 - 2 x 1", 16)]
    [InlineData(Kind.Area, "2 * 24 x 15", 720)]
    [InlineData(Kind.Area, "12'6 x 6\"", 6.25)]
    [InlineData(Kind.Area, "100 + 20 sq yd", 280)]
    [InlineData(Kind.Area, "1 acre", 43560)]
    [InlineData(Kind.Length, "12'6 + 18\"", 14)]
    [InlineData(Kind.Length, "3 * (4 - 6\")", 10.5)]
    [InlineData(Kind.Volume, "3 x 4 x 6\"", 6)]
    [InlineData(Kind.Volume, "2 yd3", 54)]
    [InlineData(Kind.Count, "3 * 4 + 2", 14)]
    public void Typed_quantities(Kind kind, string text, double value) =>
        Assert.Equal(
            value,
            (double)TypedQuantities.In(new(kind, text, UnitSystem.Feet), UnitSystem.Feet.For(kind)),
            1e-9
        );

    [Theory]
    [InlineData(Kind.Area, "12'6", "a length, and an area is wanted")]
    [InlineData(Kind.Area, "12' + 3 x 4", "cannot be added")]
    [InlineData(Kind.Length, "3' x 4'", "an area, and a length is wanted")]
    [InlineData(Kind.Volume, "2 x 2 x 2 x 2", "More than three lengths")]
    [InlineData(Kind.Count, "12'", "a length, and a count is wanted")]
    [InlineData(Kind.Area, "3 x 4 - 5 x 5", "less than zero")]
    [InlineData(Kind.Area, "3 x 4 ells", "cannot be read")]
    public void Typed_quantities_refused(Kind kind, string text, string says) =>
        Assert.Contains(
            says,
            Assert.Throws<RefusedException>(() => TypedQuantities.Read(new(kind, text, UnitSystem.Feet))).Message
        );

    [Theory]
    [InlineData("Study not measured", "Study", 1)]
    [InlineData("Study: not measured", "Study", 1)]
    [InlineData("Study 2 not measured", "Study 2", 1)]
    [InlineData("Study NOT MEASURED; x3", "Study", 3)]
    [InlineData("Not measured: not measured", "Not measured", 1)]
    public void Places_that_are_only_listed(string line, string name, int count)
    {
        var reading = TapeLine.ReadOrThrow(line, UnitSystem.Feet);
        Assert.Equal((name, count, true), (reading.Name, reading.Count, reading.Shape is Unmeasured));
    }

    [Fact]
    public void Walls_that_do_not_close_offer_the_walls_that_would_close_them()
    {
        var refusal = TapeLine.Read("Corner walls 20 r 10 r 8 l 6 r 12 r 15'6 x 9", UnitSystem.Feet).Refusal!;
        Assert.Contains(
            "the last ends 6\" across it from where the first began. Which wall is wrong?",
            refusal.Message
        );
        Assert.Equal(
            ["wall B 10' → 9'6\"", "wall D 6' → 5'6\"", "wall F 15'6\" → 16'"],
            refusal.Remedies!.Select(r => r.Words).Order()
        );
        foreach (var remedy in refusal.Remedies!)
            Assert.NotNull(TapeLine.Read(remedy.Line, UnitSystem.Feet).Reading);
        Assert.Equal(14, refusal.Walk!.Count);
        var two = TapeLine.Read("Corner walls 20'4 r 10 r 8 l 6 r 12 r 15'6 x 9", UnitSystem.Feet).Refusal!;
        Assert.Contains("4\" along wall A and 6\" across it", two.Message);
        Assert.Contains(two.Remedies!, r => r.Words == "wall A 20'4\" → 20' and wall F 15'6\" → 16'");
        Assert.All(two.Remedies!, r => Assert.NotNull(TapeLine.Read(r.Line, UnitSystem.Feet).Reading));
    }

    [Fact]
    public void A_hundred_thousand_random_lines_are_read_or_refused() =>
        Gen.Select(
                Gen.OneOf(
                    Gen.Char["0123456789'\".x-+*()/; ,:dorwinalsepf½×\u0000é°"].Array[0, 60].Select(c => new string(c)),
                    Gen.OneOf(
                            new string[]
                            {
                                "Room ",
                                "walls ",
                                "corners ",
                                "face ",
                                "site ",
                                "run ",
                                "stair ",
                                "items ",
                                "slope ",
                                "; ",
                                "door ",
                                "window ",
                                "wall B ",
                                "band a to ",
                                "island ",
                                "gable ",
                                "landing ",
                                "x ",
                                "x2 ",
                                "r ",
                                "l ",
                                "r45° ",
                                ", ",
                                "+ ",
                                "- ",
                                "( ",
                                ") ",
                                "12 ",
                                "3'6 ",
                                "7 1/2\" ",
                                "0 ",
                                "99999999 ",
                                "4 m ",
                                "deep ",
                                "sill ",
                                "on B ",
                                "into Hall ",
                                "rise ",
                                "going ",
                                "wide ",
                                "treads ",
                                "around ",
                                "acre ",
                                "not measured",
                                ": ",
                            }
                                .Select(Gen.Const)
                                .ToArray()
                        )
                        .Array[1, 24]
                        .Select(string.Concat)
                ),
                Gen.Bool
            )
            .Always(
                (line, feet) =>
                {
                    var (reading, refusal) = TapeLine.Read(line, feet ? UnitSystem.Feet : UnitSystem.Metres);
                    return reading is null != refusal is null;
                },
                times: 100_000
            );
}
