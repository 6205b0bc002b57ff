using System.Collections;
using System.Collections.Immutable;

namespace Emendum.Core.Book;

/// <summary>The classes of direct cost (estimating model §7). Whatever costs anything belongs to one of them.</summary>
public enum CostClass
{
    /// <summary>Loaded hours of the firm's own people.</summary>
    Labour,

    /// <summary>Goods.</summary>
    Material,

    /// <summary>Machines by the hour, day or visit.</summary>
    Equipment,

    /// <summary>Work bought from other firms.</summary>
    Subcontract,

    /// <summary>Fees and fixed charges, the way to the site among them.</summary>
    Fixed,
}

/// <summary>One of something for each class of cost.</summary>
public sealed class ByClass<T>(Func<CostClass, T> of) : IEnumerable<(CostClass Class, T Of)>
{
    /// <summary>The classes in their order.</summary>
    public static readonly ImmutableArray<CostClass> Classes = [.. CostClassWords.InOrder];

    // Each line of a job has several of these: no sequence is made for them.
    private readonly T[] all = Array.ConvertAll(CostClassWords.InOrder, of.Invoke);

    /// <summary>What there is of a class.</summary>
    public T this[CostClass of] => all[(int)of];

    /// <inheritdoc/>
    public IEnumerator<(CostClass Class, T Of)> GetEnumerator()
    {
        for (var i = 0; i < all.Length; i++)
            yield return (Classes[i], all[i]);
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}

/// <summary>What classes of cost are called.</summary>
public static class CostClassWords
{
    /// <summary>The classes in their order; not to be changed.</summary>
    internal static readonly CostClass[] InOrder = Enum.GetValues<CostClass>();

    /// <summary>Name in paths, terms and files.</summary>
    public static string Name(this CostClass of) => of.ToString().ToLowerInvariant();

    /// <summary>Words on screen and paper.</summary>
    public static string Label(this CostClass of) =>
        of switch
        {
            CostClass.Labour => "Labour",
            CostClass.Material => "Materials",
            CostClass.Equipment => "Equipment",
            CostClass.Subcontract => "Subcontracts",
            _ => "Fixed charges",
        };
}
