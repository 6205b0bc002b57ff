using CsCheck;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

public class RoomMeasuresTests
{
    [Theory]
    // Estimating model §2, worked 1.
    [InlineData(Measure.FloorArea, 159.5)]
    [InlineData(Measure.CeilingArea, 159.5)]
    [InlineData(Measure.Perimeter, 51)]
    [InlineData(Measure.GrossWallArea, 408)]
    [InlineData(Measure.OpeningArea, 48)]
    [InlineData(Measure.DeductedArea, 48)]
    [InlineData(Measure.NetWallArea, 360)]
    [InlineData(Measure.SkirtingLength, 48)]
    [InlineData(Measure.CorniceLength, 51)]
    [InlineData(Measure.DoorCount, 1)]
    [InlineData(Measure.WindowCount, 2)]
    [InlineData(Measure.OpeningCount, 3)]
    [InlineData(Measure.CornerCount, 4)]
    [InlineData(Measure.Volume, 1276)]
    public void Worked_room(Measure measure, double value) =>
        Assert.Equal((decimal)value, Sample.Measure("Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2")[measure].V);

    [Theory]
    // Common practice: a 4 × 8 ft sheet covers 32 ft², one of 1.2 × 2.4 m 2.88 m².
    [InlineData("Sheet 4 x 8 x 1", UnitSystem.Feet, 32)]
    [InlineData("Sheet 1.2 x 2.4 x 1", UnitSystem.Metres, 2.88)]
    public void A_sheet_covers_what_it_is_known_to(string line, UnitSystem units, double area) =>
        Assert.Equal((decimal)area, Sample.Measure(line, units)[Measure.FloorArea].V);

    [Fact]
    public void The_same_room_in_metres_and_in_feet_agrees()
    {
        var feet = Sample.Measure("R 14'6 x 11 x 8; door 3 x 6'8 deep 4\"");
        var mixed = Sample.Measure("R 4419.6 mm x 11 x 8; door 3 x 6'8 deep 10.16 cm");
        foreach (var measure in Enum.GetValues<Measure>())
            Assert.Equal((double)feet[measure].V, (double)mixed[measure].V, 1e-9);
    }

    [Fact]
    public void Reveals_run_up_across_and_with_a_sill_along_the_bottom()
    {
        var room = Sample.Measure("R 20 x 16 x 9; window 4 x 4 sill deep 6\"; door 3 x 7 deep 3\"");
        Assert.Equal(
            (16 + 17, 16 * 0.5m + 17 * 0.25m),
            ((int)room[Measure.RevealLength].V, room[Measure.RevealArea].V)
        );
    }

    [Fact]
    public void An_unlined_pass_through_adds_its_two_cheeks_to_the_skirting() =>
        Assert.Equal(
            72 - 5 + 1,
            Sample.Measure("R 20 x 16 x 9; pass-through 5 x 7 deep 6\"")[Measure.SkirtingLength].V
        );

    [Theory]
    // RICS NRM2, from memory: voids to 1.00 m² are not deducted.
    [InlineData("nrm2", "1 x 1", 0)]
    [InlineData("nrm2", "1 x 1.001", 1.001)]
    // VOB/C DIN 18363 and DIN 18350, from memory: to 2.5 m² measured over.
    [InlineData("vob", "1 x 2.5", 0)]
    [InlineData("vob", "1.001 x 2.5", 2.5025)]
    // IS 1200 plaster, from memory: to 0.5 m² nothing, to 3 m² half, above it whole.
    [InlineData("is1200", "0.5 x 1", 0)]
    [InlineData("is1200", "1 x 1", 0.5)]
    [InlineData("is1200", "1.5 x 2", 1.5)]
    [InlineData("is1200", "1.501 x 2", 3.002)]
    [InlineData("net", "0.01 x 0.01", 0.0001)]
    [InlineData("gross", "3 x 2.5", 0)]
    public void Deduction_presets_around_their_limits(string rule, string opening, double deducted)
    {
        var room = Sample.Measure($"R 6 x 5 x 3; window {opening}", UnitSystem.Metres, rule);
        Assert.Equal((decimal)deducted, room[Measure.DeductedArea].V);
        Assert.Equal(66 - (decimal)deducted, room[Measure.NetWallArea].V);
    }

    [Theory]
    [InlineData("vob", "1 x 2", 22)]
    [InlineData("vob", "1.01 x 2", 20.99)]
    public void Lengths_measured_over_by_VOB(string rule, string door, double skirting) =>
        Assert.Equal(
            (decimal)skirting,
            Sample.Measure($"R 6 x 5 x 3; door {door}", UnitSystem.Metres, rule)[Measure.SkirtingLength].V
        );

    [Fact]
    public void Reveals_are_measured_by_IS_1200_only_above_three_square_metres()
    {
        Assert.Equal(
            0,
            Sample.Measure("R 6 x 5 x 3; window 1 x 2 deep 0.1", UnitSystem.Metres, "is1200")[Measure.RevealLength].V
        );
        Assert.Equal(
            6,
            Sample.Measure("R 6 x 5 x 3; window 2 x 2 deep 0.1", UnitSystem.Metres, "is1200")[Measure.RevealLength].V
        );
    }

    private static readonly Gen<int> Sixteenths = Gen.Int[16 * 30, 16 * 600];

    [Fact]
    public void A_turned_room_agrees() =>
        Gen.Select(Sixteenths, Sixteenths, Sixteenths)
            .Always(
                (a, b, h) =>
                {
                    static string In(int sixteenths) =>
                        $"{sixteenths / 16} {(sixteenths % 16 == 0 ? "" : $"{sixteenths % 16}/16")}\"".Replace(
                            " \"",
                            "\""
                        );
                    var one = Sample.Measure($"R {In(a)} x {In(b)} x {In(h)}; door 20\" x 25\"");
                    var turned = Sample.Measure($"R {In(b)} x {In(a)} x {In(h)}; door 20\" x 25\"");
                    return Enum.GetValues<Measure>().All(m => one[m].V == turned[m].V);
                }
            );
}
