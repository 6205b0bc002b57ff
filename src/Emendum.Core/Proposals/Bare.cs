using System.Collections.Immutable;

namespace Emendum.Core.Proposals;

/// <summary>Elements as they are read where nobody can ask for workings: without names and paths of figures. So they leave the house, and so they stand in the proposal of another job.</summary>
public static class Bare
{
    /// <summary>Elements without them.</summary>
    public static ImmutableArray<Element> Of(IEnumerable<Element> elements) => [.. elements.Select(Of)];

    private static Element Of(Element element) =>
        element switch
        {
            Paragraph paragraph => paragraph with { Spans = Of(paragraph.Spans) },
            Bullets bullets => bullets with { Items = [.. bullets.Items.Select(i => i with { Spans = Of(i.Spans) })] },
            PriceTable table => table with { Rows = [.. table.Rows.Select(r => r with { Figure = null })] },
            _ => element,
        };

    private static ImmutableArray<Span> Of(ImmutableArray<Span> spans) =>
        [.. spans.Select(s => s with { Name = null, Figure = null })];
}
