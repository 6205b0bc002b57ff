using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>Sets the same of many places at once: <c>height</c>, <c>count</c>, <c>finish</c>, or adds an <c>opening</c>.</summary>
public sealed record EditPlaces(ImmutableArray<PlaceWas> Places, string Field, string Value) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Places.IsEmpty)
            throw RefusedException.Of("places", "No place is chosen.");
        Commands.OnceEach(Places.Select(p => p.Place));
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var (id, was) in Places)
        {
            var place = Commands.Place(job, id);
            if ((Field == "finish" ? place.Finish : place.Line) != was)
                throw new ConflictException(Field, Field == "finish" ? place.Finish : place.Line);
            var now = Edited(job, place);
            if (Field != "finish")
                now = now with { Line = PlaceLine.Print(now, job.Units, other => job.Place(other)?.Name) };
            if (!ChangeSet.Same(Commands.Node(place), Commands.Node(now)))
                changes.Add(new($"places/{id}", Commands.Node(place), Commands.Node(now)));
        }
        return changes.ToImmutable();
    }

    private Place Edited(Job job, Place place)
    {
        switch (Field)
        {
            case "finish":
                return place with { Finish = Value.Trim() };
            case "count":
                return int.TryParse(
                    Value.Trim(),
                    System.Globalization.NumberStyles.None,
                    System.Globalization.CultureInfo.InvariantCulture,
                    out var count
                )
                    ? place with
                    {
                        Count = count,
                    }
                    : throw RefusedException.Of("value", "A count is a whole number, like 2.");
            case "height":
                var height = TypedQuantities.Length(Value, job.Units, "height");
                return place.Shape switch
                {
                    Room { Slope.IsEmpty: true } room => place with { Shape = room with { High = height } },
                    Elevation { Faces.Length: 1 } face => place with
                    {
                        Shape = face with { Faces = [face.Faces[0] with { High = height }] },
                    },
                    _ => throw RefusedException.Of("value", $"{place.Name} has no one height to set."),
                };
            case "opening":
                if (!place.Shape.TakesOpenings)
                    throw RefusedException.Of("value", $"{place.Name} takes no openings.");
                var reading = TapeLine.ReadOrThrow($"Any 10000 m x 10000 m x 10000 m; {Value}", job.Units);
                if (reading.Openings.Length != 1 || Value.Contains(';'))
                    throw RefusedException.Of("value", "Write one opening, like door 3 x 6'8.");
                var opening = reading.Openings[0];
                return place with
                {
                    Openings = place.Openings.Add(
                        reading.Into[0] is { } name
                            ? opening with
                            {
                                Into = PlacesInJob.Named(PlacesInJob.Known(job), name, place.Id, place.Group),
                            }
                            : opening
                    ),
                };
            default:
                throw RefusedException.Of("field", "That cannot be set for many places at once.");
        }
    }
}

/// <summary>A place and the line, or heading, it is seen with.</summary>
public sealed record PlaceWas(Guid Place, string Was);
