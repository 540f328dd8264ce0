using Npgsql;
using Rendal.App.Layouts;
using Rendal.Core.Layouts;
using Rendal.Html;
using Rendal.Store.Layouts;

namespace Rendal.App.Delivery;

/// <summary>The layouts that a worker met lately, made ready once. A version never changes, so that none of them grows old.</summary>
internal sealed class ReadyLayouts(NpgsqlDataSource source)
{
    private const int Most = 50;

    private readonly Dictionary<(long Book, LayoutRef Layout), LayoutTemplate> ready = [];

    /// <summary>A layout made ready, kept from one parcel to the next; the built-in one for null.</summary>
    public async Task<LayoutTemplate> OfAsync(long book, LayoutRef? layout)
    {
        if (layout is not { } known)
        {
            return LayoutReader.BuiltIn;
        }

        if (!ready.TryGetValue((book, known), out var template))
        {
            if (ready.Count == Most)
            {
                ready.Clear();
            }

            ready.Add(
                (book, known),
                template = await LayoutOfParcel.ReadyAsync(new LayoutStore(source, book), known, CancellationToken.None)
            );
        }

        return template;
    }
}
