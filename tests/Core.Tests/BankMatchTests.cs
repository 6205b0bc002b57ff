using System.Collections.Immutable;
using Emendum.Core.Delivery;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Where money goes that came by bank (delivery.md, M26, and M24 for a discount that is taken in time).</summary>
public sealed class BankMatchTests
{
    private static readonly Guid Trust = Sample.NewId(),
        Clinic = Sample.NewId();
    private static readonly DateOnly Day = new(2027, 3, 10);

    private static OwedInvoice Owed(
        string number,
        decimal open,
        int due = 0,
        Guid? customer = null,
        decimal early = 0
    ) =>
        new(
            Sample.NewId(),
            Sample.NewId(),
            customer ?? Trust,
            customer == Clinic ? "Quayside Veterinary Clinic" : "Hollin Botanic Trust",
            number,
            Day.AddDays(due),
            open,
            early,
            early > 0 ? Day.AddDays(1) : null
        );

    private static BankEntry Came(
        decimal amount,
        string words = "",
        string payer = "",
        string account = "",
        int day = 0
    ) => new(new('a', 64), Day.AddDays(day), amount, "USD", payer, account, words);

    private static readonly ImmutableArray<OwedInvoice> All =
    [
        Owed("2027-0003", 300, -20),
        Owed("2027-0001", 100, -10),
        Owed("2027-0002", 200, 5),
        Owed("2027-0004", 400, -30, Clinic),
    ];

    private static BankMatch Match(BankEntry entry, Dictionary<string, Guid>? accounts = null) =>
        BankMatch.Of(entry, All, accounts ?? []);

    private static (string, decimal)[] Parts(BankMatch match) => [.. match.Parts.Select(p => (p.Of.Number, p.Amount))];

    [Fact]
    public void M26_money_goes_to_the_invoice_it_names_and_what_is_too_much_is_a_credit()
    {
        var match = Match(Came(250, "our invoice 2027-0002, thank you", "Somebody else"));
        Assert.Equal([("2027-0002", 200m)], Parts(match));
        Assert.Equal((MatchedBy.Number, 50m, Trust), (match.By, match.Credit, match.Customer!.Value));
        // In part.
        Assert.Equal([("2027-0002", 80m)], Parts(Match(Came(80, "2027-0002"))));
        // Two that it names, of two customers: the one that is due first first, and it is nobody's alone.
        var two = Match(Came(450, "2027-0001 and 2027-0004"));
        Assert.Equal([("2027-0004", 400m), ("2027-0001", 50m)], Parts(two));
        Assert.Equal((0m, (Guid?)null), (two.Credit, two.Customer));
    }

    [Fact]
    public void M26_without_a_number_it_goes_to_what_its_payer_owes_the_oldest_due_first()
    {
        var match = Match(Came(350, "thanks", "HOLLIN BOTANIC TRUST LTD"));
        Assert.Equal([("2027-0003", 300m), ("2027-0001", 50m)], Parts(match));
        Assert.Equal((MatchedBy.Payer, 0m), (match.By, match.Credit));
        Assert.Equal(100, Match(Came(700, "", "Hollin Botanic Trust")).Credit);
        // By the account from which that customer paid before, whatever is written.
        var known = Match(
            Came(400, "", "Q V C", "IE29AIBK93115212345678"),
            new() { ["IE29AIBK93115212345678"] = Clinic }
        );
        Assert.Equal([("2027-0004", 400m)], Parts(known));
        // Nobody that is known: a person says where it goes.
        var nobody = Match(Came(400, "", "Hollin"));
        Assert.Equal([("2027-0003", 300m), ("2027-0001", 100m)], Parts(nobody));
        Assert.Equal(MatchedBy.Nothing, Match(Came(400, "", "Trust of Nobody")).By);
        Assert.Equal((MatchedBy.Nothing, 400m), (Match(Came(400)).By, Match(Came(400)).Credit));
    }

    [Theory]
    [InlineData("2027-0002", true)]
    [InlineData("Inv.2027-0002.", true)]
    [InlineData("inv no 2027-00 02 of March", true)]
    [InlineData("2027-\n0002", true)]
    [InlineData("12027-0002", false)]
    [InlineData("2027-00021", false)]
    [InlineData("2027-0020", false)]
    [InlineData("", false)]
    public void A_number_is_named_where_nothing_of_a_word_stands_beside_it(string words, bool named) =>
        Assert.Equal(named, BankMatch.Names(words, "2027-0002"));

    [Fact]
    public void A_short_number_is_not_looked_for_and_case_does_not_count()
    {
        Assert.False(BankMatch.Names("house 12, 12 March", "12"));
        Assert.True(BankMatch.Names("re-2027/a7", "RE-2027/A7"));
    }

    [Fact]
    public void M24_what_settles_an_invoice_in_time_with_its_discount_settles_it()
    {
        ImmutableArray<OwedInvoice> one = [Owed("2027-0009", 1_190, 20, early: 23.80m)];
        BankMatch At(decimal amount, int day) =>
            BankMatch.Of(Came(amount, "2027-0009", day: day), one, new Dictionary<string, Guid>());
        var settled = At(1_166.20m, 1);
        Assert.Equal((1_166.20m, 23.80m, 0m), (settled.Parts[0].Amount, settled.Parts[0].Discount, settled.Credit));
        // A day late, or a cent less, it is a part.
        Assert.Equal((1_166.20m, 0m), (At(1_166.20m, 2).Parts[0].Amount, At(1_166.20m, 2).Parts[0].Discount));
        Assert.Equal(0, At(1_166.19m, 1).Parts[0].Discount);
    }
}
