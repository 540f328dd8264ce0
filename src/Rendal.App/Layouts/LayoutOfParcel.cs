using Rendal.Core.Layouts;
using Rendal.Html;
using Rendal.Store.Layouts;

namespace Rendal.App.Layouts;

/// <summary>The layout that a parcel was prepared with.</summary>
internal static class LayoutOfParcel
{
    /// <summary>A version made ready; the one that is there before any was made where <paramref name="version"/> is null.</summary>
    /// <exception cref="InvalidOperationException">There is none of these numbers, which a parcel's cannot be.</exception>
    public static async Task<LayoutTemplate> ReadyAsync(LayoutStore layouts, LayoutRef? version, CancellationToken cancel) =>
        version is not { } known ? LayoutReader.BuiltIn
        : await layouts.FindAsync(known, cancel) is { } stored ? LayoutReader.Read(stored.Layout)
        : throw new InvalidOperationException("A parcel’s layout is gone.");
}
