using Microsoft.Extensions.Caching.Memory;
using Rendal.Core.Wordings;
using Rendal.Html;

namespace Rendal.App.Wordings;

/// <summary>
/// Wordings that were made ready a while ago: to take one apart and clean it takes longer than to fill it a hundred times. Each process
/// keeps its own.
/// </summary>
internal static class ReadyWordings
{
    private const int MostKept = 500;
    private static readonly TimeSpan Unused = TimeSpan.FromMinutes(10);
    private static readonly MemoryCache Kept = new(new MemoryCacheOptions { SizeLimit = MostKept });

    /// <summary>A wording made ready.</summary>
    public static WordingTemplate Of(Wording wording)
    {
        if (!Kept.TryGetValue(wording, out WordingTemplate? ready))
        {
            Kept.Set(wording, ready = WordingReader.Read(wording), new MemoryCacheEntryOptions { Size = 1, SlidingExpiration = Unused });
        }

        return ready!;
    }
}
