using System.Collections;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization.Metadata;

namespace Emendum.Core.Json;

/// <summary>A list may not have holes (null) in it, nor may what is always there be null: the serializer lets both through, the second where it comes before what the constructor needs.</summary>
internal static class Gaps
{
    /// <summary>Makes a type refuse holes in its lists, and nothing where something has to be.</summary>
    public static void Refuse(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var lists = type
            .Properties.Where(p =>
                p.Get is not null
                && p.PropertyType != typeof(string)
                && p.PropertyType.IsAssignableTo(typeof(IEnumerable))
                && !p.PropertyType.IsAssignableTo(typeof(JsonNode))
                && !HoldsValues(p.PropertyType)
            )
            .ToArray();
        var always = type
            .Properties.Where(p =>
                p is { Get: not null, Set: not null, IsGetNullable: false, PropertyType.IsValueType: false }
            )
            .ToArray();
        if (lists.Length == 0 && always.Length == 0)
            return;
        type.OnDeserialized = thing =>
        {
            foreach (var one in always)
                if (one.Get!(thing) is null)
                    throw new PlainJsonException(
                        $"“{one.Name}” is there and says nothing: leave it out, or say something."
                    );
            foreach (var list in lists)
                Refuse(list.Name, list.Get!(thing) as IEnumerable);
        };
    }

    private static void Refuse(string name, IEnumerable? list)
    {
        if (list is null or string || HoldsValues(list.GetType()))
            return;
        foreach (var one in list)
        {
            if (one is null)
                throw new PlainJsonException($"There is a hole in the list “{name}”.");
            if (one is IEnumerable inner)
                Refuse(name, inner);
        }
    }

    /// <summary>Whether a list is of values, which cannot be missing; told once for a type and not for each thing that is read.</summary>
    private static bool HoldsValues(Type list) =>
        list.GenericTypeArguments is [{ IsValueType: true } element] && !typeof(IEnumerable).IsAssignableFrom(element);
}
