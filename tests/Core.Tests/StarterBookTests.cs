using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

public class StarterBookTests
{
    private static readonly Dictionary<Guid, BookEntry> All = StarterBook.Entries.ToDictionary(e => e.Id);

    public static TheoryData<string> Work => [.. StarterBook.Entries.OfType<WorkEntry>().Select(e => e.Id.ToString())];

    [Fact]
    public void Three_Books_of_at_least_120_entries_each_of_which_is_sound()
    {
        Assert.Equal(
            ["Inside finishing", "Outside and site", "Services"],
            StarterBook.Entries.Select(e => e.Trade).Distinct().Order()
        );
        Assert.InRange(StarterBook.Entries.Length, 120, int.MaxValue);
        foreach (var entry in StarterBook.Entries)
            BookRules.Check(entry, All);
    }

    [Fact]
    public void No_two_entries_are_alike_but_for_a_number()
    {
        static string Shape(BookEntry entry) =>
            new(
                [
                    .. System
                        .Text.Json.JsonSerializer.Serialize(entry with { Id = Guid.Empty }, CoreJson.Options)
                        .Where(c => !char.IsAsciiDigit(c) && c != '.'),
                ]
            );
        Assert.Empty(
            StarterBook
                .Entries.GroupBy(Shape)
                .Where(g => g.Count() > 1)
                .Select(g => string.Join(" = ", g.Select(e => e.Name)))
        );
    }

    [Theory]
    [MemberData(nameof(Work))]
    public void Every_entry_of_work_gives_figures_that_are_recomputed_from_their_explanation(string id)
    {
        var entry = (WorkEntry)All[Guid.Parse(id)];
        foreach (var units in Enum.GetValues<UnitSystem>())
        {
            var trace = Trace.Recording();
            var reckoning = Trial.Usual(units).Of(entry, All.GetValueOrDefault, trace);
            Assert.True(reckoning.Reckoned.Lines.Single().Quantity.V > 0);
            foreach (
                var (part, amount) in reckoning.Reckoned.Lines[0].Item.Parts.Zip(reckoning.Reckoned.Lines[0].Amounts)
            )
                Assert.True(amount.V > 0, part.Name);
            if (entry is PriceOnlyItem)
                Assert.True(reckoning.Priced.Single().Price.V > 0);
            else
                Assert.True(reckoning.Price.Direct.V > 0);
            Assert.InRange(WorkingsTests.Recomputed(trace), 3, int.MaxValue);
        }
    }

    [Fact]
    public void Feet_and_metres_cost_the_same_for_the_same_work()
    {
        foreach (var entry in StarterBook.Entries.OfType<WorkEntry>())
        {
            decimal Direct(UnitSystem units) =>
                Trial.Usual(units) with
                {
                    Quantities = Trial
                        .Asks(entry, units)
                        .Where(a => Places.Measures.Find(a.Name) is not null)
                        .ToDictionary(
                            a => a.Name,
                            a =>
                                Rounding.Figure(
                                    new Quantity(300, UnitSystem.Feet.For(a.Unit.Kind)).In(units.For(a.Unit.Kind)).Value
                                )
                        )
                        .ToImmutable(),
                }
                    is var trial
                    ? trial.Of(entry, All.GetValueOrDefault, Trace.Silent).Price.Direct.V
                    : 0;
            Assert.InRange(Direct(UnitSystem.Metres) - Direct(UnitSystem.Feet), -0.01m, 0.01m);
        }
    }
}

internal static class Dictionaries
{
    public static System.Collections.Immutable.ImmutableDictionary<string, decimal> ToImmutable(
        this Dictionary<string, decimal> from
    ) => System.Collections.Immutable.ImmutableDictionary.CreateRange(from);
}
