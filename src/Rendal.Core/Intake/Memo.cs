namespace Rendal.Core.Intake;

/// <summary>
/// Remembers what was worked out for texts that come again and again in a column. When it has grown to <see cref="Most"/> texts it begins
/// anew, so that its memory stays bounded in a column where every text is another.
/// </summary>
/// <param name="work">What is worked out; it must give the same for the same text.</param>
internal sealed class Memo<T>(Func<string, T> work)
{
    /// <summary>How many texts are remembered at once.</summary>
    public const int Most = 100_000;

    private readonly Dictionary<string, T> known = new(StringComparer.Ordinal);

    /// <summary>What comes of a text, worked out or remembered.</summary>
    public T Of(string text)
    {
        if (!known.TryGetValue(text, out var value))
        {
            if (known.Count >= Most)
            {
                known.Clear();
            }

            known.Add(text, value = work(text));
        }

        return value;
    }
}
