using Emendum.Core.Book;
using Xunit;

namespace Emendum.Core.Tests;

public sealed class KindOfPartTests
{
    [Fact]
    public void Every_kind_of_part_stands_at_its_place_and_every_class_has_one()
    {
        var kinds = Enum.GetValues<ComponentKind>();
        Assert.Equal(kinds, kinds.Select(k => KindOfPart.Of(k).Kind));
        Assert.Equal(ByClass<int>.Classes, kinds.Select(k => KindOfPart.Of(k).Class).Distinct().Order());
    }
}
