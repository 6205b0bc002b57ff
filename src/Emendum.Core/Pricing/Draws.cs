namespace Emendum.Core.Pricing;

/// <summary>Numbers that look like chance and are the same each time: SplitMix64 (Steele, Lea and Flood, <i>Fast splittable pseudorandom number generators</i>, OOPSLA 2014). Any number of the
/// row can be had without those before it.</summary>
/// <param name="seed">With which the row begins.</param>
public readonly struct Draws(long seed)
{
    /// <summary>The number at a position of the row, from 0 on.</summary>
    public ulong At(long position)
    {
        unchecked
        {
            var z = (ulong)seed + ((ulong)position + 1) * 0x9E3779B97F4A7C15;
            z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9;
            z = (z ^ (z >> 27)) * 0x94D049BB133111EB;
            return z ^ (z >> 31);
        }
    }

    /// <summary>How many parts the way from 0 to 1 is drawn in.</summary>
    public const int Parts = 1_000_000_000;

    /// <summary>A whole number from 0 to below <see cref="Parts"/>, each as likely as the other.</summary>
    public int Billionths(long position) => (int)(ulong)((UInt128)At(position) * Parts >> 64);
}
