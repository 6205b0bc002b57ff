using System.Globalization;
using System.Numerics;
using System.Text.Json;
using Emendum.Core.Figures;
using Emendum.Core.Pricing;

namespace Emendum.Core.Tests;

/// <summary>Recomputes figures from the JSON of an explanation alone, in exact fractions. Uses nothing of the core: what it finds, anybody could.</summary>
internal sealed class WorkingsChecker(JsonElement explanation)
{
    private readonly Dictionary<string, Fraction> known = [];
    private readonly Dictionary<string, decimal[]> shares = [];
    private readonly Dictionary<string, decimal[]> drawn = [];

    /// <summary>Paths of the figures that were recomputed.</summary>
    public IEnumerable<string> Known => known.Keys;

    /// <summary>Recomputes the figure; throws with its path where the stated value differs.</summary>
    public Fraction Figure(string path)
    {
        if (known.TryGetValue(path, out var value))
            return value;
        var figure = explanation.GetProperty("figures").GetProperty(path);
        var computed = Round(Step(figure.GetProperty("how")), 12);
        var stated = Fraction.Of(figure.GetProperty("value").GetString()!);
        if (computed != stated)
            throw new InvalidOperationException(
                $"{path}: stated {figure.GetProperty("value")}, recomputed {computed}: {figure.GetProperty("sentence")}"
            );
        return known[path] = stated;
    }

    private Fraction Step(JsonElement step)
    {
        Fraction[] Of() => [.. step.GetProperty("of").EnumerateArray().Select(Step)];
        switch (step.GetProperty("op").GetString())
        {
            case "typed" or "book" or "terms" or "constant":
                return Fraction.Of(step.GetProperty("value").GetString()!);
            case "figure":
                var value = Figure(step.GetProperty("path").GetString()!);
                return Fraction.Of(step.GetProperty("value").GetString()!) == value
                    ? value
                    : throw new InvalidOperationException(
                        $"a reference to {step.GetProperty("path")} states {step.GetProperty("value")}, the figure {value}"
                    );
            case "add":
                return Of().Aggregate(Fraction.Zero, (a, b) => a + b);
            case "subtract":
                return Of() is [var a, var b] ? a - b : throw new InvalidOperationException("subtract takes two");
            case "multiply":
                return Of() is [var c, var d] ? c * d : throw new InvalidOperationException("multiply takes two");
            case "divide":
                return Of() is [var e, var f] ? e / f : throw new InvalidOperationException("divide takes two");
            case "apply":
                return Of() is [var g, var times, var over]
                    ? g * times / over
                    : throw new InvalidOperationException("apply takes three");
            case "floor":
                return Fraction.Zero - Ceiling(Fraction.Zero - Round(Of()[0], 9));
            case "min":
                return Of().Min();
            case "max":
                return Of().Max();
            case "table":
                var reached = Round(Of()[0], 9);
                return Fraction.Of(
                    step.GetProperty("rows")
                        .EnumerateArray()
                        .Last(r => Fraction.Of(r.GetProperty("from").GetString()!) <= reached)
                        .GetProperty("gives")
                        .GetString()!
                );
            case "plan":
                var values = Of();
                var (days, returns) = Plan(
                    values[0],
                    values[1],
                    values[2..],
                    [.. step.GetProperty("steps").EnumerateArray()]
                );
                return new(step.GetProperty("gives").GetString() == "days" ? days : returns, 1);
            case "sqrt":
                return Root(Of()[0]);
            case "ceil":
                return Ceiling(Round(Of()[0], 9));
            case "money":
                return Round(Round(Of()[0], 9), Places(step));
            case "packs":
                return Packs(step, Of()[0]);
            case "share":
                return Share(step);
            case "outcome":
                return Fraction.Of(Drawn(step)[step.GetProperty("rank").GetInt32() - 1]);
            case "outcomesAbove":
                var bound = Exactly(Round(Of()[0], 9));
                return Fraction.Of(
                    (decimal)Drawn(step).Count(o => Math.Round(o, 9, MidpointRounding.AwayFromZero) > bound)
                );
            case var other:
                throw new InvalidOperationException($"an unknown operation: {other}");
        }
    }

    /// <summary>Checks that the packs cover the need and that no other choice is cheaper, by dynamic programming over whole steps of the pack sizes.</summary>
    private static Fraction Packs(JsonElement step, Fraction need)
    {
        var packs = step.GetProperty("packs")
            .EnumerateArray()
            .Select(p =>
                (
                    Size: decimal.Parse(p.GetProperty("size").GetString()!, CultureInfo.InvariantCulture),
                    Price: decimal.Parse(p.GetProperty("price").GetString()!, CultureInfo.InvariantCulture),
                    Count: decimal.Parse(p.GetProperty("count").GetString()!, CultureInfo.InvariantCulture)
                )
            )
            .ToArray();
        var (size, cost) = (packs.Sum(p => p.Size * p.Count), packs.Sum(p => p.Price * p.Count));
        if (Fraction.Of(size) < Round(need, 9))
            throw new InvalidOperationException("the packs do not cover the need");
        var grain = packs
            .Select(p => p.Size)
            .Aggregate(
                (a, b) =>
                {
                    while (b != 0)
                        (a, b) = (b, a % b);
                    return a;
                }
            );
        var steps = (int)(BigInteger)Ceiling(Round(need, 9) / Fraction.Of(grain)).Numerator;
        var cheapest = new decimal[steps + 1];
        for (var i = 1; i <= steps; i++)
            cheapest[i] = packs.Min(p => p.Price + cheapest[Math.Max(0, i - (int)(p.Size / grain))]);
        if (cheapest[steps] != cost)
            throw new InvalidOperationException($"packs for {cost} where {cheapest[steps]} would do");
        return Fraction.Of(step.GetProperty("gives").GetString() == "cost" ? cost : size);
    }

    /// <summary>Walks through the days of the plan: in each the crew takes the first work that may go on, or waits, or goes home.</summary>
    private static (int Days, int Returns) Plan(Fraction crew, Fraction day, Fraction[] hours, JsonElement[] steps)
    {
        var night = Fraction.Of(24m);
        var left = steps.Select((s, i) => hours[i] == Fraction.Zero ? 0 : s.GetProperty("coats").GetInt32()).ToArray();
        var span = steps
            .Select((s, i) => Round(hours[i] / (crew * Fraction.Of(s.GetProperty("coats").GetInt32())), 12))
            .ToArray();
        var rest = span.ToArray();
        var dry = new Fraction[steps.Length];
        Array.Fill(dry, Fraction.Zero);
        var (today, clock, last, returns, started) = (0, Fraction.Zero, 0, 0, -1);
        var wentHomeEarly = false;
        while (left.Any(l => l > 0))
        {
            var now = Fraction.Of(today) * night + clock;
            // Work that was begun goes on; otherwise the first in the list that waits for nothing.
            var next =
                started >= 0 ? started
                : Array.FindIndex(left, l => l > 0) is var first && first >= 0
                    ? Enumerable
                        .Range(0, left.Length)
                        .Where(i => left[i] > 0 && Ready(i) is { } t && Round(t, 9) <= Round(now, 9))
                        .DefaultIfEmpty(-1)
                        .First()
                : -1;
            var over = Round(clock, 9) >= Round(day, 9);
            if (next >= 0 && !over)
            {
                if (wentHomeEarly)
                    (returns, wentHomeEarly) = (returns + 1, false);
                var time = rest[next] < day - clock ? rest[next] : day - clock;
                (clock, rest[next], last) = (clock + time, rest[next] - time, today);
                started = next;
                if (Round(rest[next], 9) > Fraction.Zero)
                    continue;
                (started, rest[next]) = (-1, span[next]);
                left[next]--;
                dry[next] =
                    Fraction.Of(today) * night + clock + Fraction.Of(steps[next].GetProperty("drying").GetString()!);
                continue;
            }
            // Nothing can be done now: wait for the earliest within the day, else the day is lost from here.
            var soon = Enumerable
                .Range(0, left.Length)
                .Where(i => left[i] > 0)
                .Select(Ready)
                .OfType<Fraction>()
                .DefaultIfEmpty(Fraction.Zero)
                .Min();
            if (!over && next < 0 && Round(soon - Fraction.Of(today) * night, 9) < Round(day, 9))
                clock = soon - Fraction.Of(today) * night;
            else
            {
                if (!over)
                    wentHomeEarly = true;
                (today, clock) = (today + 1, Fraction.Zero);
            }
        }
        return (hours.All(h => h == Fraction.Zero) ? 0 : last + 1, returns);

        Fraction? Ready(int i)
        {
            var when = left[i] > 0 ? dry[i] : Fraction.Zero;
            foreach (var wait in steps[i].GetProperty("waits").EnumerateArray().Select(w => w.GetInt32()))
            {
                if (left[wait] > 0)
                    return null;
                if (when < dry[wait])
                    when = dry[wait];
            }
            return when;
        }
    }

    /// <summary>The draws of a sum, put in order, as docs/workings-format.md says that they are made.</summary>
    private decimal[] Drawn(JsonElement step)
    {
        var name = step.GetProperty("set").GetString()!;
        if (drawn.TryGetValue(name, out var known))
            return known;
        var set = explanation.GetProperty("sets").GetProperty(name);
        decimal Number(string of) => Exactly(Step(set.GetProperty(of)));
        var varying = set.GetProperty("varying")
            .EnumerateArray()
            .Select(v =>
                (
                    Least: Exactly(Step(v.GetProperty("least"))),
                    Most: Exactly(Step(v.GetProperty("most"))),
                    Stream: v.GetProperty("stream").GetInt32()
                )
            )
            .ToArray();
        var (whole, shared, seed) = (Number("fixed"), Number("shared"), (ulong)Number("seed"));
        var (draws, streams) = (set.GetProperty("draws").GetInt32(), set.GetProperty("streams").GetInt32());
        var all = new decimal[draws];
        // The numbers are taken one after another, as anybody would who writes them down.
        var (row, mask) = (new BigInteger(seed), (BigInteger.One << 64) - 1);
        BigInteger Next()
        {
            row = (row + 0x9E3779B97F4A7C15) & mask;
            var z = (row ^ (row >> 30)) * 0xBF58476D1CE4E5B9 & mask;
            z = (z ^ (z >> 27)) * 0x94D049BB133111EB & mask;
            return z ^ (z >> 31);
        }
        decimal Unit() => (decimal)(Next() * 1_000_000_000 >> 64) / 1_000_000_000m;
        for (var n = 0; n < draws; n++)
        {
            var ofAll = Unit();
            var u = new decimal[streams];
            for (var s = 0; s < streams; s++)
            {
                var (coin, own) = (Unit(), Unit());
                u[s] = coin < shared / 100 ? ofAll : own;
            }
            all[n] = whole + varying.Sum(v => v.Least + (v.Most - v.Least) * u[v.Stream]);
        }
        Array.Sort(all);
        return drawn[name] = all;
    }

    private static decimal Exactly(Fraction value) => (decimal)value.Numerator / (decimal)value.Denominator;

    /// <summary>Places of the currency: cents where nothing else is said.</summary>
    private static int Places(JsonElement of) => of.TryGetProperty("places", out var places) ? places.GetInt32() : 2;

    private Fraction Share(JsonElement step)
    {
        var name = step.GetProperty("set").GetString()!;
        if (!shares.TryGetValue(name, out var parts))
        {
            var set = explanation.GetProperty("sets").GetProperty(name);
            var (total, weights) = (
                Step(set.GetProperty("total")),
                set.GetProperty("weights").EnumerateArray().Select(Step).ToArray()
            );
            var sum = weights.Aggregate(Fraction.Zero, (a, b) => a + b);
            var places = Places(set);
            var (hundred, minus) = (Fraction.Of((decimal)Math.Pow(10, places)), total.Numerator.Sign < 0);
            if (minus)
                total = Fraction.Zero - total;
            var exact = weights
                .Select(w => sum == Fraction.Zero ? total / Fraction.Of(weights.Length) : total * w / sum)
                .Select(x => Round(x, 12) * hundred)
                .ToArray();
            // Down, also below zero.
            var cents = exact
                .Select(x =>
                    BigInteger.DivRem(x.Numerator, x.Denominator, out var rest)
                    - (rest.Sign < 0 ? BigInteger.One : BigInteger.Zero)
                )
                .ToArray();
            var left = (int)(
                (total * hundred).Numerator / (total * hundred).Denominator
                - cents.Aggregate(BigInteger.Zero, (a, b) => a + b)
            );
            foreach (
                var i in Enumerable
                    .Range(0, cents.Length)
                    .OrderByDescending(i => exact[i] - new Fraction(cents[i], 1))
                    .ThenBy(i => i)
                    .Take(left)
            )
                cents[i]++;
            shares[name] = parts = [.. cents.Select(c => (decimal)(minus ? -c : c) / (decimal)Math.Pow(10, places))];
        }
        return Fraction.Of(parts[step.GetProperty("index").GetInt32()]);
    }

    private static Fraction Round(Fraction value, int places)
    {
        var scale = BigInteger.Pow(10, places);
        var (whole, rest) = BigInteger.DivRem(BigInteger.Abs(value.Numerator) * scale, value.Denominator);
        if (rest * 2 >= value.Denominator)
            whole++;
        return new(value.Numerator.Sign < 0 ? -whole : whole, scale);
    }

    /// <summary>Square root to 12 places by whole numbers alone: the nearest n with n/10¹² nearest to the root.</summary>
    private static Fraction Root(Fraction value)
    {
        var scale = BigInteger.Pow(10, 12);
        // Twice as fine, so that the last digit shows which way to round.
        var target = value.Numerator * scale * scale * 4 / value.Denominator;
        var root = target.IsZero ? BigInteger.Zero : (BigInteger)Math.Exp(BigInteger.Log(target) / 2);
        while (root * root > target)
            root -= BigInteger.Max(1, (root * root - target) / (2 * root + 1));
        while ((root + 1) * (root + 1) <= target)
            root += BigInteger.Max(1, (target - root * root) / (2 * root + 1));
        return new((root + 1) / 2, scale);
    }

    private static Fraction Ceiling(Fraction value)
    {
        var whole = BigInteger.DivRem(value.Numerator, value.Denominator, out var rest);
        return new(rest.Sign > 0 ? whole + 1 : whole, 1);
    }

    /// <summary>An exact fraction in lowest terms.</summary>
    internal readonly struct Fraction : IEquatable<Fraction>, IComparable<Fraction>
    {
        public static readonly Fraction Zero = new(0, 1);

        public Fraction(BigInteger numerator, BigInteger denominator)
        {
            var common = BigInteger.GreatestCommonDivisor(numerator, denominator) * denominator.Sign;
            (Numerator, Denominator) = (numerator / common, denominator / common);
        }

        public BigInteger Numerator { get; }
        public BigInteger Denominator { get; }

        public static Fraction Of(string text)
        {
            var point = text.IndexOf('.');
            return point < 0
                ? new(BigInteger.Parse(text, CultureInfo.InvariantCulture), 1)
                : new(
                    BigInteger.Parse(text.Remove(point, 1), CultureInfo.InvariantCulture),
                    BigInteger.Pow(10, text.Length - point - 1)
                );
        }

        public static Fraction Of(decimal value) => Of(value.ToString(CultureInfo.InvariantCulture));

        public static Fraction operator +(Fraction a, Fraction b) =>
            new(a.Numerator * b.Denominator + b.Numerator * a.Denominator, a.Denominator * b.Denominator);

        public static Fraction operator -(Fraction a, Fraction b) =>
            new(a.Numerator * b.Denominator - b.Numerator * a.Denominator, a.Denominator * b.Denominator);

        public static Fraction operator *(Fraction a, Fraction b) =>
            new(a.Numerator * b.Numerator, a.Denominator * b.Denominator);

        public static Fraction operator /(Fraction a, Fraction b) =>
            new(a.Numerator * b.Denominator, a.Denominator * b.Numerator);

        public static bool operator ==(Fraction a, Fraction b) => a.Equals(b);

        public static bool operator !=(Fraction a, Fraction b) => !a.Equals(b);

        public static bool operator <=(Fraction a, Fraction b) => a.CompareTo(b) <= 0;

        public static bool operator >=(Fraction a, Fraction b) => a.CompareTo(b) >= 0;

        public static bool operator <(Fraction a, Fraction b) => a.CompareTo(b) < 0;

        public static bool operator >(Fraction a, Fraction b) => a.CompareTo(b) > 0;

        public int CompareTo(Fraction other) =>
            (Numerator * other.Denominator).CompareTo(other.Numerator * Denominator);

        public bool Equals(Fraction other) => Numerator == other.Numerator && Denominator == other.Denominator;

        public override bool Equals(object? obj) => obj is Fraction other && Equals(other);

        public override int GetHashCode() => HashCode.Combine(Numerator, Denominator);

        public override string ToString() => $"{Numerator}/{Denominator}";
    }
}
