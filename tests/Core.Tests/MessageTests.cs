using Emendum.Core.Proposals;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Messages that go out with a proposal.</summary>
public class MessageTests
{
    private static Message To(params Recipient[] to) => new([.. to], "Proposal", "Good day.");

    private static string Refused(Message message) =>
        Assert.Throws<RefusedException>(message.Check).Refusal.Field ?? "";

    [Fact]
    public void Figures_by_name_are_those_of_the_job_and_what_has_nothing_to_say_stands_as_it_was_typed()
    {
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(20)] });
        job.Work(labour: 1000);
        var (subject, words, missing) = Proposal.Filled(
            job.Estimate,
            new(Guid.NewGuid(), "Ada Marsh", ""),
            Brand.Starting,
            "C",
            "Revision {revision} for {customer}",
            "It is {total}; {a year} a year; {not a figure}; a brace { stays."
        );
        Assert.Equal("Revision C for Ada Marsh", subject);
        // 1,000 of labour, and 20 % tax.
        Assert.Equal("It is 1,200.00; {a year} a year; {not a figure}; a brace { stays.", words);
        Assert.Equal(["a year"], missing);
    }

    [Theory]
    [InlineData("ada@marsh.example", true)]
    [InlineData("a.b+c@sub.marsh.example", true)]
    [InlineData("", false)]
    [InlineData("ada", false)]
    [InlineData("ada@", false)]
    [InlineData("Ada <ada@marsh.example>", false)]
    [InlineData("ada@marsh.example, bo@marsh.example", false)]
    [InlineData("ada@marsh.example\r\nBcc: bo@marsh.example", false)]
    [InlineData("ada@marsh.example ", false)]
    [InlineData("ada@marsh", true)]
    [InlineData("@marsh.example", false)]
    [InlineData("ada@marsh..example", false)]
    [InlineData("ada@-marsh.example", false)]
    [InlineData("ada@marsh-.example", false)]
    [InlineData("ada@bo@marsh.example", false)]
    [InlineData("{ada}@marsh.example", true)]
    [InlineData("ada(b)@marsh.example", false)]
    [InlineData("\"ada b\"@marsh.example", false)]
    [InlineData("adä@marsh.example", false)]
    public void An_address_is_one_address_and_nothing_beside_it(string text, bool isOne) =>
        Assert.Equal(isOne, Message.IsAddress(text));

    [Fact]
    public void What_cannot_go_out_is_refused_and_names_its_field()
    {
        To(new Recipient("ada@marsh.example", false), new("bo@marsh.example", true)).Check();
        Assert.Equal("to", Refused(To()));
        Assert.Equal("to", Refused(To(new Recipient("ada@marsh.example", true))));
        Assert.Equal("to", Refused(To(new Recipient("ada@marsh.example", false), new("ADA@marsh.example", true))));
        Assert.Equal("to", Refused(To(new Recipient("ada", false))));
        var many = Enumerable.Range(0, Message.MostRecipients + 1).Select(n => new Recipient($"a{n}@b.example", false));
        Assert.Equal("to", Refused(To([.. many])));
        To([.. many.Skip(1)]).Check();
        var ada = To(new Recipient("ada@marsh.example", false));
        Assert.Equal("subject", Refused(ada with { Subject = "Proposal\r\nBcc: bo@marsh.example" }));
        Assert.Equal("subject", Refused(ada with { Subject = "  " }));
        Assert.Equal("subject", Refused(ada with { Subject = new('x', Message.MostSubject + 1) }));
        Assert.Equal("words", Refused(ada with { Words = " \n" }));
        Assert.Equal("words", Refused(ada with { Words = new('x', Message.MostWords + 1) }));
    }

    [Theory]
    [InlineData("555 0166", true)]
    [InlineData("+44 (0)20 7946-0123", true)]
    [InlineData("112", true)]
    [InlineData("12", false)]
    [InlineData("", false)]
    [InlineData("1234567890123456", false)]
    [InlineData("555+0166", false)]
    [InlineData("555 0166 or 67", false)]
    [InlineData("555 0166\n", false)]
    public void A_number_is_one_telephone_number_and_nothing_beside_it(string text, bool isOne) =>
        Assert.Equal(isOne, Message.IsNumber(text));

    [Fact]
    public void A_text_message_goes_to_telephones_is_short_and_has_no_subject()
    {
        var text = To(new Recipient("555 0166", false), new("555 0134", true)) with
        {
            Way = MessageWay.Text,
            Subject = "",
            Words = new('x', Message.MostOfText),
        };
        text.Check();
        Assert.Equal("text message to 555 0166, copy to 555 0134", text.Went());
        Assert.Equal("to", Refused(text with { To = [] }));
        Assert.Equal("to", Refused(text with { To = [new("ada@marsh.example", false)] }));
        Assert.Equal("to", Refused(text with { To = [new("555 0166", false), new("555-0166", false)] }));
        Assert.Equal("subject", Refused(text with { Subject = "Proposal" }));
        Assert.Equal("words", Refused(text with { Words = " " }));
        Assert.Equal("words", Refused(text with { Words = text.Words + "x" }));
    }

    [Fact]
    public void Who_got_it_is_said_with_copies_apart() =>
        Assert.Equal(
            "mail to ada@marsh.example, cy@marsh.example, copy to bo@marsh.example",
            To(new Recipient("ada@marsh.example", false), new("bo@marsh.example", true), new("cy@marsh.example", false))
                .Went()
        );

    [Fact]
    public void The_messages_that_a_firm_starts_with_say_only_figures_that_there_are()
    {
        MessageTexts.Starting.Check();
        var job = new PricedJob();
        job.Work(labour: 1000);
        foreach (var text in MessageTexts.Starting.All)
        {
            var (subject, words, missing) = Proposal.Filled(
                job.Estimate,
                new(Guid.NewGuid(), "Ada Marsh", ""),
                Brand.Starting,
                "B",
                text.Subject,
                text.Words
            );
            Assert.Empty(missing);
            Assert.DoesNotContain("{", subject + words, StringComparison.Ordinal);
        }
        var wrong = MessageTexts.Starting with
        {
            All = MessageTexts.Starting.All.SetItem(0, MessageTexts.Starting.All[0] with { Words = "{totl}" }),
        };
        Assert.Equal("words", Assert.Throws<RefusedException>(wrong.Check).Refusal.Field);
        Assert.Equal(
            "from",
            Assert.Throws<RefusedException>((MessageTexts.Starting with { From = "office" }).Check).Refusal.Field
        );
    }

    [Fact]
    public void A_link_stands_where_the_words_say_it_and_under_them_where_they_do_not()
    {
        Assert.Equal("Read it: L. Again: L.", Message.WithLink("Read it: {link}. Again: { link }.", "L"));
        Assert.Equal("Good day.\n\nL\n", Message.WithLink("Good day.\n\n", "L"));
        // Braces that name nothing stay.
        Assert.Equal("{total} {\n\nL\n", Message.WithLink("{total} {", "L"));
        new MessageText(Sample.NewId(), "One", "Subject", "See {link}.").Check();
        Assert.Throws<RefusedException>(() => new MessageText(Sample.NewId(), "One", "{link}", "Words").Check());
    }
}
