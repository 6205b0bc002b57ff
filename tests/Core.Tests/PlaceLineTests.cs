using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

public class PlaceLineTests
{
    /// <summary>Everything of a reading but how its lengths were typed.</summary>
    private static string Measured(TapeReading reading)
    {
        var node = JsonSerializer.SerializeToNode(reading, CoreJson.Options)!;
        void Strip(JsonNode? part)
        {
            if (part is JsonObject thing)
            {
                thing.Remove("typed");
                foreach (var (_, value) in thing)
                    Strip(value);
            }
            else if (part is JsonArray list)
            {
                foreach (var value in list)
                    Strip(value);
            }
        }
        Strip(node);
        return node.ToJsonString();
    }

    [Fact]
    public void Ten_thousand_random_places_written_as_tape_lines_read_back_equal()
    {
        var kinds = new Dictionary<string, int>();
        Gen.Select(RandomPlaces.Readings, Gen.Bool)
            .Always(
                (reading, feet) =>
                {
                    var system = feet ? UnitSystem.Feet : UnitSystem.Metres;
                    var line = PlaceLine.Print(reading, system);
                    var (read, refusal) = TapeLine.Read(line, system);
                    // Openings are made without looking at the walls: a line may be refused, but only because one does not fit.
                    if (read is null)
                    {
                        Assert.True(
                            refusal!.Message.Contains("arger than") || refusal.Message.Contains("islands"),
                            $"{line}: {refusal.Message}"
                        );
                        return;
                    }
                    kinds[read.Shape.Kind] = kinds.GetValueOrDefault(read.Shape.Kind) + 1;
                    Assert.True(Measured(read) == Measured(reading), $"{line} became {PlaceLine.Print(read, system)}");
                },
                times: 20_000
            );
        Assert.Equal(7, kinds.Count);
        Assert.InRange(kinds.Values.Sum(), 10_000, 20_000);
    }

    [Theory]
    [InlineData("Study 14'6 x 11 x 8; door 3 x 6'8 deep 4 1/2\"; window 4 x 3'6 x2 sill at 3", UnitSystem.Feet)]
    [InlineData("Study 12 + 2'6 x 11 x 8 x3; band tile to 4; island 2 x 1", UnitSystem.Feet)]
    [InlineData(
        "Front face (10 + 2) x 5.4 + 3 x 2.2; x2; gable 12 x 2.75; eaves 24; window 1.2 x 1.5 x4",
        UnitSystem.Metres
    )]
    [InlineData("Court site 24 x 15 + 10 x 10 around 120 deep 4\"", UnitSystem.Feet)]
    public void Typed_forms_are_kept(string line, UnitSystem system) =>
        Assert.Equal(line, PlaceLine.Print(TapeLine.ReadOrThrow(line, system), system));

    [Theory]
    [InlineData("Study 14'6 x 11 x 8; door 3 x 6'8", "Study 14'6 x 11' x 8'; door 3' x 6'8")]
    [InlineData("Court site 24 x 15 + 10 x 10", "Court site 460 ft2")]
    [InlineData("L corners 0,0 20,0 20,10 0,10 x 9", "L corners 0\",0\" 20'0\",0\" 20'0\",10'0\" 0\",10'0\" x 9'")]
    public void For_another_system_every_length_gets_its_unit(string line, string printed)
    {
        var reading = TapeLine.ReadOrThrow(line, UnitSystem.Feet);
        Assert.Equal(printed, PlaceLine.Print(reading, UnitSystem.Metres));
        Assert.Equal(printed, PlaceLine.Print(reading, null));
    }
}
