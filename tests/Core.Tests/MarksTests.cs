using Emendum.Core.Book;
using Emendum.Core.Proposals;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The closed set of marks in texts, and the figures that they say by name.</summary>
public class MarksTests
{
    private static Element[] Read(string words) =>
        [.. Marks.Read(words, name => name == "total" ? new Span("1,190.00") { Figure = "price/total" } : null)];

    private static string Written(string line) =>
        string.Concat(
            Marks
                .Spans(line, _ => null)
                .Select(s =>
                    s.Stress switch
                    {
                        Stress.Strong => $"<b>{s.Text}</b>",
                        Stress.Slanted => $"<i>{s.Text}</i>",
                        _ => s.Text,
                    }
                )
        );

    [Fact]
    public void Empty_lines_part_paragraphs_and_lines_of_one_belong_together()
    {
        var read = Read("One\nline.\n\n\nAnother.\r\n");
        Assert.Equal(["One line.", "Another."], read.Cast<Paragraph>().Select(p => p.Text));
        Assert.Empty(Read(" \n\n "));
    }

    [Fact]
    public void Lists_and_headings_end_where_something_else_begins()
    {
        var read = Read("Before:\n- one\n- two\nAfter.\n# Head\nMore.");
        Assert.Equal("Before:", Assert.IsType<Paragraph>(read[0]).Text);
        Assert.Equal(["one", "two"], Assert.IsType<Bullets>(read[1]).Items.Select(b => b.Text));
        Assert.Equal("After.", Assert.IsType<Paragraph>(read[2]).Text);
        Assert.Equal(new Heading(2, "Head"), read[3]);
        Assert.Equal("More.", Assert.IsType<Paragraph>(read[4]).Text);
        Assert.Equal(5, read.Length);
    }

    [Theory]
    [InlineData("It is *not* included.", "It is <b>not</b> included.")]
    [InlineData("_Quite_ so, and *so*.", "<i>Quite</i> so, and <b>so</b>.")]
    [InlineData("3 * 4 and 5*6*7 stay", "3 * 4 and 5*6*7 stay")]
    [InlineData("snake_case_name", "snake_case_name")]
    [InlineData("*left open", "*left open")]
    [InlineData("** and __ and *", "** and __ and *")]
    [InlineData("*two words* here", "<b>two words</b> here")]
    [InlineData("* spaced *", "* spaced *")]
    [InlineData("<b>&amp;</b>", "<b>&amp;</b>")]
    public void Marks_are_whole_or_they_are_letters(string typed, string read) => Assert.Equal(read, Written(typed));

    [Fact]
    public void Figures_stand_in_words_and_keep_the_stress_about_them()
    {
        var spans = Assert.IsType<Paragraph>(Assert.Single(Read("You pay *{total} in all*, {else} not."))).Spans;
        Assert.Equal(
            [
                new("You pay "),
                new("1,190.00", Stress.Strong) { Name = "total", Figure = "price/total" },
                new(" in all", Stress.Strong),
                new(", {else} not."),
            ],
            spans.ToArray()
        );
    }

    [Fact]
    public void A_name_that_is_none_is_refused_with_its_place()
    {
        FigureNames.Check("{total}, {valid until}; a {} and {\n", "words");
        var wrong = Assert.Throws<RefusedException>(() => FigureNames.Check("It is {totl}.", "words")).Refusal;
        Assert.Equal(("words", 6), (wrong.Field, wrong.Position));
        Assert.Contains("“totl”", wrong.Message);
        Assert.Contains("total", wrong.Message);
    }
}
