using System.Collections;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization.Metadata;

namespace Emendum.Core.Json;

/// <summary>A list may not have holes (null) in it; the serializer would let them through.</summary>
internal static class Gaps
{
    /// <summary>Makes a type refuse holes in its lists.</summary>
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
        if (lists.Length == 0)
            return;
        type.OnDeserialized = thing =>
        {
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
