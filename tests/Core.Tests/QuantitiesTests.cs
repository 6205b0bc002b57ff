using CsCheck;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

public class QuantitiesTests
{
    [Theory]
    // NIST SP 811 appendix B and Handbook 44 appendix C.
    [InlineData("in", "mm", "25.4")]
    [InlineData("ft", "m", "0.3048")]
    [InlineData("yd²", "ft²", "9")]
    [InlineData("acre", "m²", "4046.8564224")]
    [InlineData("ha", "m²", "10000")]
    [InlineData("gal", "L", "3.785411784")]
    [InlineData("lb", "kg", "0.45359237")]
    [InlineData("ton", "lb", "2000")]
    [InlineData("t", "kg", "1000")]
    public void Unit_factors_are_the_published_ones(string from, string to, string value) =>
        Assert.Equal(
            decimal.Parse(value, System.Globalization.CultureInfo.InvariantCulture),
            Rounding.Figure(new Quantity(1, Unit.Find(from)!).In(Unit.Find(to)!).Value)
        );

    [Fact]
    public void A_gallon_at_one_mil_covers_1604_square_feet() =>
        // Arithmetic of 231 in³, the form used in coating standards (ISO 12944, SSPC/AMPP guides).
        Assert.Equal(
            1604.166667m,
            decimal.Round(Unit.Gallon.Factor / (Unit.Inch.Factor / 1000m) / Unit.SquareFoot.Factor, 6)
        );

    [Fact]
    public void A_coating_of_35_percent_solids_at_one_and_a_half_mil_covers_374_square_feet() =>
        Assert.Equal(
            374.3m,
            decimal.Round(Unit.Gallon.Factor * 0.35m / (1.5m * Unit.Inch.Factor / 1000m) / Unit.SquareFoot.Factor, 1)
        );

    [Fact]
    public void A_litre_at_one_micrometre_covers_a_thousand_square_metres() =>
        Assert.Equal(1000m, Unit.Litre.Factor / 0.001m / Unit.SquareMetre.Factor);

    [Theory]
    [InlineData(1, 324)]
    [InlineData(3, 108)]
    public void A_cubic_yard_covers_so_much(int inches, int squareFeet) =>
        // Arithmetic: loose cover.
        Assert.Equal(
            squareFeet,
            decimal.Round(Unit.CubicYard.Factor / (inches * Unit.Inch.Factor) / Unit.SquareFoot.Factor, 9)
        );

    [Fact]
    public void Metres_and_feet_add_metres_and_square_feet_do_not()
    {
        Assert.Equal(1.3048m, (new Quantity(1, Unit.Metre) + new Quantity(1, Unit.Foot)).Value);
        var refused = Assert.Throws<RefusedException>(() =>
            new Quantity(1, Unit.Metre) + new Quantity(1, Unit.SquareFoot)
        );
        Assert.Contains("cannot be combined", refused.Message);
    }

    [Theory]
    [InlineData("125 ft² per h", "125 ft² per h")]
    [InlineData("0.3 h per 100 m2", "0.3 h per 100 m²")]
    [InlineData("1 hour per 240 feet", "1 h per 240 ft")]
    [InlineData("1.2 ha per h", "1.2 ha per h")]
    [InlineData("1 t per 31 m²", "1 t per 31 m²")]
    [InlineData("125 sq ft an hour", "125 ft² per h")]
    [InlineData("125 ft²/h", "125 ft² per h")]
    [InlineData("1 hour for 1,000 m²", "1 h per 1000 m²")]
    [InlineData("20 min every door", "20 min per door")]
    [InlineData("3 cu yd per h", "3 yd³ per h")]
    [InlineData("0.5 h per h", "0.5 h per h")]
    public void Rates_are_read_either_way_round(string typed, string read) =>
        Assert.Equal(read, Ratio.Parse(typed).ToString());

    [Theory]
    [InlineData("0 ft² per h", "more than zero")]
    [InlineData("125 ft² per 0 h", "more than zero")]
    [InlineData("125 smoots per h", "not a unit")]
    [InlineData("fast", "not a rate")]
    [InlineData("1e9 ft² per h", "not")]
    [InlineData("", "not a rate")]
    public void Other_rates_are_refused_with_a_sentence(string typed, string says) =>
        Assert.Contains(says, Assert.Throws<RefusedException>(() => Ratio.Parse(typed)).Message);

    [Fact]
    public void Two_thirds_three_times_are_two_and_not_three_packs() =>
        Assert.Equal(2, Rounding.Ceiling(Rounding.Figure(2m / 3m) * 3));

    [Fact]
    public void Split_parts_sum_to_the_total_and_stay_within_a_cent_of_their_share() =>
        Gen.Select(Gen.Int[0, 10_000_000], Gen.Int[0, 1000].Array[1, 30])
            .Always(
                (cents, raw) =>
                {
                    var (total, weights) = (cents / 100m, raw.Select(w => (decimal)w).ToArray());
                    var parts = Split.ByLargestRemainder(total, weights);
                    var sum = weights.Sum();
                    return parts.Sum() == total
                        && parts
                            .Zip(weights)
                            .All(p => sum == 0 || decimal.Abs(p.First - total * p.Second / sum) < 0.01m);
                }
            );

    [Fact]
    public void Ties_of_a_split_go_to_the_earlier_part() =>
        Assert.Equal([0.34m, 0.33m, 0.33m], Split.ByLargestRemainder(1m, [1, 1, 1]));
}
