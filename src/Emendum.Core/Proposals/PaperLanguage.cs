using System.Collections.Immutable;
using System.Text;

namespace Emendum.Core.Proposals;

/// <summary>In which language dates and numbers stand on paper; the words are the firm's own. Forms as the Unicode CLDR has them (long date, decimal number), with a no-break space where it has a narrow one.</summary>
/// <param name="Name">BCP 47 tag.</param>
/// <param name="Words">What it is called on screen.</param>
/// <param name="Thousands">Between thousands.</param>
/// <param name="Point">Between units and tenths.</param>
/// <param name="Form">Of a date: <c>d</c> day, <c>m</c> month, <c>y</c> year, and words between them in quotes.</param>
/// <param name="Months">Names of the months.</param>
public sealed record PaperLanguage(
    string Name,
    string Words,
    string Thousands,
    string Point,
    string Form,
    ImmutableArray<string> Months
)
{
    private const string Space = "\u00a0";

    private static ImmutableArray<string> Of(string months) => [.. months.Split(' ')];

    private static readonly ImmutableArray<string> EnglishMonths = Of(
        "January February March April May June July August September October November December"
    );

    private static readonly ImmutableArray<string> GermanMonths = Of(
        "Januar Februar März April Mai Juni Juli August September Oktober November Dezember"
    );

    /// <summary>English, day first: as the interface writes.</summary>
    public static readonly PaperLanguage English = new("en-GB", "English, day first", ",", ".", "d m y", EnglishMonths);

    /// <summary>All of them.</summary>
    public static readonly ImmutableArray<PaperLanguage> All =
    [
        English,
        new("en-US", "English, month first", ",", ".", "m d, y", EnglishMonths),
        new(
            "da",
            "Danish",
            ".",
            ",",
            "d. m y",
            Of("januar februar marts april maj juni juli august september oktober november december")
        ),
        new(
            "nl",
            "Dutch",
            ".",
            ",",
            "d m y",
            Of("januari februari maart april mei juni juli augustus september oktober november december")
        ),
        new(
            "fi",
            "Finnish",
            Space,
            ",",
            "d. m y",
            Of(
                "tammikuuta helmikuuta maaliskuuta huhtikuuta toukokuuta kesäkuuta heinäkuuta elokuuta syyskuuta lokakuuta marraskuuta joulukuuta"
            )
        ),
        new(
            "fr",
            "French",
            Space,
            ",",
            "d m y",
            Of("janvier février mars avril mai juin juillet août septembre octobre novembre décembre")
        ),
        new("de", "German", ".", ",", "d. m y", GermanMonths),
        new("de-CH", "German, Switzerland", "'", ".", "d. m y", GermanMonths),
        new(
            "it",
            "Italian",
            ".",
            ",",
            "d m y",
            Of("gennaio febbraio marzo aprile maggio giugno luglio agosto settembre ottobre novembre dicembre")
        ),
        new(
            "nb",
            "Norwegian",
            Space,
            ",",
            "d. m y",
            Of("januar februar mars april mai juni juli august september oktober november desember")
        ),
        new(
            "pl",
            "Polish",
            Space,
            ",",
            "d m y",
            Of("stycznia lutego marca kwietnia maja czerwca lipca sierpnia września października listopada grudnia")
        ),
        new(
            "pt",
            "Portuguese",
            ".",
            ",",
            "d de m de y",
            Of("janeiro fevereiro março abril maio junho julho agosto setembro outubro novembro dezembro")
        ),
        new(
            "es",
            "Spanish",
            ".",
            ",",
            "d de m de y",
            Of("enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre")
        ),
        new(
            "sv",
            "Swedish",
            Space,
            ",",
            "d m y",
            Of("januari februari mars april maj juni juli augusti september oktober november december")
        ),
    ];

    /// <summary>The language of that name; English where there is none.</summary>
    public static PaperLanguage Named(string name) => All.FirstOrDefault(l => l.Name == name) ?? English;

    /// <summary>A day: <c>30 November 2026</c>.</summary>
    public string Day(DateOnly day)
    {
        var text = new StringBuilder();
        foreach (var part in Form.Split(' '))
        {
            text.Append(text.Length == 0 ? "" : " ");
            text.Append(
                part[0] switch
                {
                    'd' when part is "de" => part,
                    'd' => $"{day.Day}{part[1..]}",
                    'm' => $"{Months[day.Month - 1]}{part[1..]}",
                    _ => $"{day.Year:0000}",
                }
            );
        }
        return text.ToString();
    }

    /// <summary>A number that was shown as the interface shows numbers (<c>1,234.50</c>), as this language has it.</summary>
    public string Number(string shown)
    {
        if (Thousands == "," && Point == ".")
            return shown;
        var text = new StringBuilder(shown.Length);
        foreach (var letter in shown)
            text.Append(
                letter switch
                {
                    ',' => Thousands,
                    '.' => Point,
                    _ => letter.ToString(),
                }
            );
        return text.ToString();
    }
}
