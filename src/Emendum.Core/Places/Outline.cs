using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>The edge of a floor or a site.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "by")]
[JsonDerivedType(typeof(Rectangle), "sides")]
[JsonDerivedType(typeof(Corners), "corners")]
[JsonDerivedType(typeof(Walls), "walls")]
public abstract record Outline
{
    /// <summary>Every length in it.</summary>
    [JsonIgnore]
    public abstract IEnumerable<Length> Lengths { get; }

    /// <summary>How many walls it has.</summary>
    [JsonIgnore]
    public abstract int Sides { get; }

    /// <summary>Its corners in millimetres, in the order of its walls.</summary>
    [JsonIgnore]
    public abstract ImmutableArray<(decimal X, decimal Y)> Millimetres { get; }

    /// <summary>Letter of a wall: A … Z, AA, AB ….</summary>
    public static string Letter(int wall) =>
        wall < 26 ? ((char)('A' + wall)).ToString() : $"{(char)('A' + wall / 26 - 1)}{(char)('A' + wall % 26)}";

    /// <summary>The wall of that letter, or −1.</summary>
    public int WallOf(string letter)
    {
        for (var i = 0; i < Sides; i++)
            if (Letter(i).Equals(letter, StringComparison.OrdinalIgnoreCase))
                return i;
        return -1;
    }
}

/// <summary>Length × width. Walls A and C are as long as the first, B and D as the second.</summary>
public sealed record Rectangle(Length Long, Length Wide) : Outline
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths => [Long, Wide];

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Sides => 4;

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<(decimal X, decimal Y)> Millimetres =>
        [(0, 0), (Long.Millimetres, 0), (Long.Millimetres, Wide.Millimetres), (0, Wide.Millimetres)];
}

/// <summary>Where something is, from any origin.</summary>
public sealed record Point(Length X, Length Y);

/// <summary>A polygon by its corners. Wall A runs from the first to the second.</summary>
public sealed record Corners(ImmutableArray<Point> Points) : Outline
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths => Points.SelectMany(p => new[] { p.X, p.Y });

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Sides => Points.Length;

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<(decimal X, decimal Y)> Millimetres =>
        [.. Points.Select(p => (p.X.Millimetres, p.Y.Millimetres))];
}

/// <summary>One wall on a walk round the edge.</summary>
/// <param name="Long">Its length.</param>
/// <param name="Turn">Degrees turned at its end, to the right; to the left is negative.</param>
public sealed record WallRun(Length Long, decimal Turn);

/// <summary>A polygon by its walls and turns, walked from any corner. The last turn closes it and is not needed.</summary>
public sealed record Walls(ImmutableArray<WallRun> Runs) : Outline
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths => Runs.Select(r => r.Long);

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Sides => Runs.Length;

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<(decimal X, decimal Y)> Millimetres => [.. Walk().Take(Runs.Length)];

    /// <summary>Direction of each wall as (cosine, sine) of its heading; quarter turns exact.</summary>
    [JsonIgnore]
    public ImmutableArray<(decimal Cos, decimal Sin)> Headings
    {
        get
        {
            var headings = ImmutableArray.CreateBuilder<(decimal, decimal)>(Runs.Length);
            var degrees = 0m;
            foreach (var run in Runs)
            {
                headings.Add(Roots.Turn(degrees));
                degrees += run.Turn;
            }
            return headings.MoveToImmutable();
        }
    }

    /// <summary>The corners walked, with the end of the last wall after them: where it misses the first corner is the gap.</summary>
    public ImmutableArray<(decimal X, decimal Y)> Walk()
    {
        var corners = ImmutableArray.CreateBuilder<(decimal, decimal)>(Runs.Length + 1);
        var (x, y) = (0m, 0m);
        corners.Add((x, y));
        foreach (var (run, (cos, sin)) in Runs.Zip(Headings))
        {
            (x, y) = (x + run.Long.Millimetres * cos, y + run.Long.Millimetres * sin);
            corners.Add((x, y));
        }
        return corners.MoveToImmutable();
    }
}
