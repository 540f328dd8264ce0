namespace Rendal.Demo;

/// <summary>Chance that falls the same on every machine and every version of the framework (xorshift, G. Marsaglia 2003).</summary>
internal sealed class Dice(ulong seed)
{
    private ulong state = seed;

    /// <summary>A whole number from 0 to <paramref name="sides"/> − 1.</summary>
    public int Below(int sides)
    {
        state ^= state << 13;
        state ^= state >> 7;
        state ^= state << 17;
        return (int)(state % (ulong)sides);
    }

    /// <summary>True in so many of a hundred throws.</summary>
    public bool Percent(int chance) => Below(100) < chance;
}
