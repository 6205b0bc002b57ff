using CsCheck;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

public class TapeLineTests
{
    [Theory]
    [InlineData("12'6\"", 150)]
    [InlineData("12'6", 150)]
    [InlineData("12' 6\"", 150)]
    [InlineData("12' 6 1/2\"", 150.5)]
    [InlineData("12'6 1/2", 150.5)]
    [InlineData("12' 1/4\"", 144.25)]
    [InlineData("12ft 6in", 150)]
    [InlineData("12.5'", 150)]
    [InlineData("150\"", 150)]
    [InlineData("12.5", 150)]
    [InlineData("12-6", 150)]
    [InlineData("18 - 5'6", 150)]
    [InlineData("10 + 2'6", 150)]
    [InlineData("(2 + 3) * 2'6", 150)]
    public void Lengths_in_feet(string typed, double inches)
    {
        var length = TapeLine.ReadOrThrow($"Room {typed} x 20 x 20", UnitSystem.Feet).Shape.Lengths.First();
        Assert.Equal((Unit.Inch, (decimal)inches, typed), (length.Unit, length.Value, length.Typed));
    }

    [Theory]
    [InlineData("3.81 m", 3810)]
    [InlineData("381 cm", 3810)]
    [InlineData("3810 mm", 3810)]
    [InlineData("3.81", 3810)]
    [InlineData("4 - 0.19", 3810)]
    [InlineData("1 m + 281 cm", 3810)]
    public void Lengths_in_metres(string typed, double millimetres)
    {
        var length = TapeLine.ReadOrThrow($"Room {typed} x 20 x 20", UnitSystem.Metres).Shape.Lengths.First();
        Assert.Equal((Unit.Millimetre, (decimal)millimetres), (length.Unit, length.Value));
    }

    [Theory]
    [InlineData("Study", 5, "size after its name")]
    [InlineData("", 0, "size after its name")]
    [InlineData("Study 14 x 11", 13, "height is missing")]
    [InlineData("Study 14'6 x 11 y 8", 16, "“y” cannot be read here")]
    [InlineData("Study 14'6 by 11", 11, "Put x before the width")]
    [InlineData("Bay 2 12 x 10 / 8", 14, "Put x before the height")]
    [InlineData("Study 14'6 x 11 / 8", 16, "Put x before the height")]
    [InlineData("Study 14 x -3 x 8", 11, "more than zero")]
    [InlineData("Study 14 x 0 x 8", 11, "more than zero")]
    [InlineData("Study 3 - 5 x 4 x 8", 6, "more than zero")]
    [InlineData("Study 12-14 x 4 x 8", 9, "less than 12")]
    [InlineData("Study 14 x 12'13 x 8", 14, "less than 12")]
    [InlineData("Study 14 ells x 11 x 8", 9, "“ells” cannot be read here")]
    [InlineData("Study 14 x 11 x 8 x2.5", 19, "whole count")]
    [InlineData("Study 14 x 11 x 8; gate 3 x 7", 19, "begins with door")]
    [InlineData("Study 14 x 11 x 8; door 3", 25, "height is missing")]
    [InlineData("Study 14 x 11 x 8; door 3 x 7 wide", 30, "cannot be read")]
    [InlineData("Study 14 x 11 x 8;; door 3 x 7", 18, "nothing between")]
    [InlineData("14 x 11 x 8", 0, "name first")]
    [InlineData("Study (14 x 11 x 8", 10, "not closed")]
    [InlineData("Study 14' 3/5\" x 11 x 8", 10, "halves, quarters")]
    [InlineData("Study 99999999999 x 11 x 8", 6, "not a number below")]
    public void What_cannot_be_read_is_refused_where_it_stands(string line, int position, string says)
    {
        var (reading, refusal) = TapeLine.Read(line, UnitSystem.Feet);
        Assert.Null(reading);
        Assert.Contains(says, refusal!.Message);
        Assert.Equal(position, refusal.Position);
    }

    [Fact]
    public void Feet_and_inches_with_a_hyphen_are_refused_in_metres() =>
        Assert.Contains("metric", TapeLine.Read("Study 12-6 x 3 x 3", UnitSystem.Metres).Refusal!.Message);

    [Theory]
    [InlineData("Study 10 x 8 x 8; window 11 x 3", "larger than the largest wall")]
    [InlineData("Study 10 x 8 x 8; door 3 x 8'1", "larger than the largest wall")]
    [InlineData("Study 10 x 8 x 8; window 9 x 8 x5", "larger than the walls")]
    public void Openings_must_fit(string line, string says) =>
        Assert.Contains(says, TapeLine.Read(line, UnitSystem.Feet).Refusal!.Message);

    [Fact]
    public void A_line_is_read_whole()
    {
        var room = TapeLine.ReadOrThrow(
            "Study bays 7'3 x 8 x 9 x4; pass-through 4 x 7 deep 6\"; window 3 x 4 x2 sill; doors 3 x 6'8",
            UnitSystem.Feet
        );
        Assert.Equal(("Study bays", 4, 87m), (room.Name, room.Count, room.Shape.Lengths.First().Value));
        Assert.Equal(
            [
                (OpeningKind.PassThrough, 1, 6m, false),
                (OpeningKind.Window, 2, 0m, true),
                (OpeningKind.Door, 1, 0m, false),
            ],
            room.Openings.Select(o => (o.Kind, o.Count, o.Depth?.Value ?? 0, o.Sill))
        );
        Assert.Equal(
            "4 equal rooms 7'3\" by 8', 9' high, with 1 pass-through 4' × 7', 6\" deep, 2 windows 3' × 4', with a sill and 1 door 3' × 6'8\"",
            string.Concat(room.ReadBack(UnitSystem.Feet))
        );
    }

    [Theory]
    // The line, what it is taken for, and the line that is offered instead.
    [InlineData("Front office 3 x 4 x6", "room", "Front office: window 3 x 4 x6")]
    [InlineData("Front office: 3 x 4 x6", "room", "Front office: window 3 x 4 x6")]
    [InlineData("Front office window 3 x 4 x6", "items", "Front office window: 3 x 4 x 6")]
    [InlineData("Front office windows 3x4x6; window 2 x 2", "items", "Front office windows: 3x4 x 6; window 2 x 2")]
    [InlineData("Front office window 3 x 4 x 6", "room", "Front office window: window 3 x 4 x6")]
    [InlineData("Side doors 3 x 6'8 x 9", "room", "Side doors: door 3 x 6'8 x9")]
    public void Where_a_count_could_be_meant_for_a_height_the_other_line_is_offered(
        string line,
        string kind,
        string other
    )
    {
        var reading = TapeLine.ReadOrThrow(line, UnitSystem.Feet);
        Assert.Equal(kind, reading.Shape.Kind);
        Assert.Equal(other, TapeDoubt.Of(line, reading, UnitSystem.Feet)!.Instead.Line);
        // What is offered is not doubted again, and is the other thing.
        var instead = TapeLine.ReadOrThrow(other, UnitSystem.Feet);
        Assert.Null(TapeDoubt.Of(other, instead, UnitSystem.Feet));
        Assert.Equal(kind == "room" ? "items" : "room", instead.Shape.Kind);
    }

    [Theory]
    [InlineData("Study 14'6 x 11 x 8")]
    [InlineData("Study 14x11x8")]
    [InlineData("Study 14 x 11 x 8 x2")]
    [InlineData("Study 14 x 11 x8'")]
    [InlineData("Window seat 3 x 4 x 6")]
    [InlineData("Front windows: window 3 x 4 x6")]
    [InlineData("Front windows 3 x 4")]
    public void What_can_only_be_one_thing_is_not_doubted(string line) =>
        Assert.Null(TapeDoubt.Of(line, TapeLine.ReadOrThrow(line, UnitSystem.Feet), UnitSystem.Feet));

    [Theory]
    [InlineData("Front: window 3 x 4 on B", "no walls")]
    [InlineData("Front: window 3 x 4 into Hall", "leads into another")]
    [InlineData("Front: window 3 x 4 glazed", "glass already")]
    [InlineData("Hall 10 x 10 x 8; pass-through 3 x 7 glazed", "no glass")]
    [InlineData("Front: window 3 x 4; island 2 x 2", "begins with window or door")]
    [InlineData("Front: window 3", "height is missing")]
    public void Windows_without_their_room_take_what_such_have(string line, string says) =>
        Assert.Contains(says, TapeLine.Read(line, UnitSystem.Feet).Refusal!.Message);

    [Fact]
    public void A_name_may_end_in_a_number() =>
        Assert.Equal("Bay 2", TapeLine.ReadOrThrow("Bay 2 12 x 10 x 8", UnitSystem.Feet).Name);
}
