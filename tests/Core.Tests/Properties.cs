using System.Runtime.CompilerServices;
using CsCheck;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>
/// Properties over random values. The test command draws the same values every time, so that what fails there fails again and what passed lands;
/// <c>./run-long</c> draws new ones, and shrinks what fails.
/// </summary>
internal static class Properties
{
    /// <summary>Whether this is <c>./run-long</c>.</summary>
    public static bool Long => Environment.GetEnvironmentVariable("EMENDUM_LONG") == "1";

    /// <summary>How often a property is tried: the short form in the test command, the long in <c>./run-long</c>.</summary>
    public static int Times(int brief, int full) => Long ? full : brief;

    /// <summary>That a property holds of each of <paramref name="times"/> random values: it says so, or says nothing against it.</summary>
    /// <exception cref="InvalidOperationException">It does not; says the seed, which CsCheck takes as <c>CsCheck_Seed</c> in the long form.</exception>
    public static void Always<T>(
        this Gen<T> gen,
        Func<T, bool> property,
        int times = 100,
        [CallerMemberName] string of = ""
    )
    {
        if (Long)
        {
            gen.Sample(property, iter: times, threads: 1);
            return;
        }
        var random = new PCG(1, Seed(of));
        for (var n = 0; n < times; n++)
        {
            var seed = random.ToString();
            var value = gen.Generate(random, null, out _);
            try
            {
                Assert.True(property(value));
            }
            catch (Exception wrong)
            {
                throw new InvalidOperationException($"{of} does not hold, seed {seed}: {Check.Print(value)}", wrong);
            }
        }
    }

    /// <inheritdoc cref="Always{T}(Gen{T}, Func{T, bool}, int, string)"/>
    public static void Always<T>(
        this Gen<T> gen,
        Action<T> property,
        int times = 100,
        [CallerMemberName] string of = ""
    ) =>
        gen.Always(
            v =>
            {
                property(v);
                return true;
            },
            times,
            of
        );

    /// <inheritdoc cref="Always{T}(Gen{T}, Func{T, bool}, int, string)"/>
    public static void Always<A, B>(
        this Gen<(A, B)> gen,
        Func<A, B, bool> property,
        int times = 100,
        [CallerMemberName] string of = ""
    ) => gen.Always(v => property(v.Item1, v.Item2), times, of);

    /// <inheritdoc cref="Always{T}(Gen{T}, Func{T, bool}, int, string)"/>
    public static void Always<A, B>(
        this Gen<(A, B)> gen,
        Action<A, B> property,
        int times = 100,
        [CallerMemberName] string of = ""
    ) =>
        gen.Always(
            v =>
            {
                property(v.Item1, v.Item2);
                return true;
            },
            times,
            of
        );

    /// <inheritdoc cref="Always{T}(Gen{T}, Func{T, bool}, int, string)"/>
    public static void Always<A, B, C>(
        this Gen<(A, B, C)> gen,
        Func<A, B, C, bool> property,
        int times = 100,
        [CallerMemberName] string of = ""
    ) => gen.Always(v => property(v.Item1, v.Item2, v.Item3), times, of);

    /// <inheritdoc cref="Always{T}(Gen{T}, Func{T, bool}, int, string)"/>
    public static void Always<A, B, C>(
        this Gen<(A, B, C)> gen,
        Action<A, B, C> property,
        int times = 100,
        [CallerMemberName] string of = ""
    ) =>
        gen.Always(
            v =>
            {
                property(v.Item1, v.Item2, v.Item3);
                return true;
            },
            times,
            of
        );

    /// <summary>A seed of a property's own, by its name: FNV-1a, from memory.</summary>
    private static ulong Seed(string of) =>
        of.Aggregate(14695981039346656037UL, (sum, letter) => unchecked((sum ^ letter) * 1099511628211UL));
}
