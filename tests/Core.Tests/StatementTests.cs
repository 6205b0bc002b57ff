using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What is signed, and the names under it (L16, L17, L21).</summary>
public class StatementTests
{
    private static readonly string Pdf = new('a', 64);

    /// <summary>An amount as it is read.</summary>
    public static decimal Read(string shown) =>
        decimal.Parse(shown.Replace(",", "").Replace('−', '-'), CultureInfo.InvariantCulture);

    public static decimal Read(StatementRow row) => Read(row.Amount);

    private static (Document Document, Statement Statement, Estimate Estimate) Library(Func<Job, Job>? changed = null)
    {
        var job = Sample.Library();
        var estimate = Sample.Reckon(changed is null ? job : changed(job));
        var document = Sample.Document(estimate);
        return (
            document,
            Statement.AsSent(
                document,
                Brand.Starting,
                RevisionFigures.Of(estimate),
                new RevisionStart(Guid.Empty, 1, null),
                Pdf
            ),
            estimate
        );
    }

    private static Job Hide(Job job, BlockKind kind) =>
        job with
        {
            Blocks = [.. job.Blocks.Select(b => b.Kind == kind ? b with { Hidden = true } : b)],
        };

    [Fact]
    public void It_says_the_price_the_taxes_the_total_what_is_offered_and_how_it_is_paid()
    {
        var (document, statement, estimate) = Library();
        Assert.Equal(("A", Pdf, 0), (statement.Revision, statement.Pdf, statement.Selection));
        Assert.Equal(estimate.Price.BeforeTax.V, Read(statement.Price[0]));
        Assert.Equal(estimate.Price.Total.V, Read(statement.Total));
        Assert.Equal(estimate.Price.Total.V, statement.Price.Sum(Read));
        Assert.Equal(estimate.Price.Taxes.Length, statement.Price.Length - 1);
        var plan = PaymentPlan.Of(estimate, Figures.Trace.Silent);
        Assert.Equal(plan.Select(s => (s.Step.When, s.Total.V)), statement.Steps.Select(s => (s.Label, Read(s))));
        // Everything that the document offers, with the choice that it is of.
        Assert.Contains(statement.Offered, o => o.Label.Contains(": ", StringComparison.Ordinal));
        Assert.Equal(
            document
                .Blocks.Where(b => b.Kind == BlockKind.Options)
                .SelectMany(b => b.Made)
                .OfType<PriceTable>()
                .SelectMany(t => t.Rows)
                .Count(r => r.Kind == RowKind.Part),
            statement.Offered.Length
        );
        Assert.Equal(
            $"Saltmarsh Lending Library Trust accepts revision A of “{estimate.Job.Info.Name}” by Larkspur & Pell Finishing as it was sent, for {statement.Total} USD in all, with tax, to be paid in {plan.Length} steps.",
            (statement with { Customer = "Saltmarsh Lending Library Trust" }).Sentence
        );
    }

    [Fact]
    public void What_the_document_does_not_say_is_not_signed()
    {
        // Without payment steps on the paper none are signed; without the price its tax stands as what is beside it.
        var (_, noPlan, _) = Library(job => Hide(job, BlockKind.Payment));
        Assert.Empty(noPlan.Steps);
        Assert.EndsWith("in all, with tax.", noPlan.Sentence, StringComparison.Ordinal);
        var (_, noPrice, estimate) = Library(job => Hide(job, BlockKind.Price));
        Assert.Equal(("Tax", 2), (noPrice.Price[1].Label, noPrice.Price.Length));
        Assert.Equal(estimate.Price.Total.V - estimate.Price.BeforeTax.V, Read(noPrice.Price[1]));
        var (_, noOffer, _) = Library(job => Hide(job, BlockKind.Options));
        Assert.Empty(noOffer.Offered);
    }

    [Fact]
    public void Its_hash_is_of_every_word_of_it()
    {
        var (_, statement, _) = Library();
        Assert.Equal(Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(statement.Text))), statement.Hash);
        foreach (
            var part in new[] { statement.Sentence, statement.Declares, statement.Reference, Pdf, statement.Total }
        )
            Assert.Contains(part, statement.Text, StringComparison.Ordinal);
        Statement[] others =
        [
            statement with
            {
                Pdf = new('b', 64),
            },
            statement with
            {
                Total = "1.00",
            },
            statement with
            {
                Selection = 1,
            },
            statement with
            {
                Revision = "B",
            },
            statement with
            {
                Reference = "Proposal 1",
            },
            statement with
            {
                Steps = [.. statement.Steps.Skip(1)],
            },
            statement with
            {
                Offered = [],
            },
            statement with
            {
                Price = [statement.Price[0] with { Detail = "x" }, .. statement.Price.Skip(1)],
            },
        ];
        Assert.Equal(others.Length + 1, others.Append(statement).Select(s => s.Hash).Distinct().Count());
    }

    [Fact]
    public void The_signed_document_is_the_one_that_was_sent_with_the_names_in_place_of_its_empty_lines()
    {
        var (document, statement, _) = Library();
        var at = new DateTime(2027, 6, 1, 9, 30, 0, DateTimeKind.Utc);
        var agreed = new Acceptance(
            Sample.NewId(),
            Sample.NewId(),
            statement,
            [
                new(Sample.NewId(), false, "Ida Marrow", "1,2 3,4", at),
                new(Sample.NewId(), true, "Nora Pell", "", at.AddDays(1)),
            ]
        );
        var signed = agreed.Signed(document, moment => $"{moment:yyyy-MM-dd}");
        Assert.Equal(
            document.Blocks.Where(b => b.Kind != BlockKind.Signatures),
            signed.Blocks.Take(signed.Blocks.Length - 1)
        );
        var last = signed.Blocks[^1];
        Assert.Empty(last.Made.OfType<Signature>());
        Assert.Equal(
            [
                (statement.Customer, "Ida Marrow", "1,2 3,4", "2027-06-01"),
                (statement.Firm, "Nora Pell", "", "2027-06-02"),
            ],
            last.Made.OfType<SignedBy>().Select(s => (s.For, s.Name, s.Drawn, s.At))
        );
        Assert.Contains(last.Made.OfType<Paragraph>(), p => p.Text.EndsWith(statement.Hash, StringComparison.Ordinal));
        Assert.Contains(last.Made.OfType<Paragraph>(), p => p.Text.EndsWith(Pdf, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("0,0", 1, 1)]
    [InlineData("1000,300 0,0", 1, 2)]
    [InlineData("1,2 3,4;5,6", 2, 3)]
    public void A_drawing_is_strokes_of_points(string drawn, int strokes, int points)
    {
        var read = Drawing.Read(drawn)!.Value;
        Assert.Equal((strokes, points), (read.Length, read.Sum(s => s.Length)));
    }

    [Theory]
    [InlineData("")]
    [InlineData("1")]
    [InlineData("1,2,3")]
    [InlineData("-1,2")]
    [InlineData("1001,2")]
    [InlineData("1,301")]
    [InlineData("1.5,2")]
    [InlineData("1,2  3,4")]
    [InlineData("1,2;")]
    [InlineData("<svg>")]
    public void What_is_no_drawing_is_none(string drawn) => Assert.Null(Drawing.Read(drawn));

    [Fact]
    public void A_drawing_and_a_name_have_a_bound()
    {
        string Points(int count) => string.Join(' ', Enumerable.Repeat("1,2", count));
        Assert.NotNull(Drawing.Read(Points(Drawing.MostPoints)));
        Assert.Null(Drawing.Read(Points(Drawing.MostPoints + 1)));
        Signed Of(string name, string drawn = "") => new(Sample.NewId(), false, name, drawn, DateTime.UnixEpoch);
        Of("Ida Marrow", "1,2").Check();
        foreach (var name in new[] { "", " ", "Ida\nMarrow", new string('x', Signed.MostOfName + 1) })
            Assert.Equal("name", Assert.Throws<RefusedException>(Of(name).Check).Refusal.Field);
        Assert.Equal("drawn", Assert.Throws<RefusedException>(Of("Ida", "x").Check).Refusal.Field);
    }
}
