using Rendal.Core.Layouts;
using Rendal.Files.Documents;
using Rendal.Files.Docx;

namespace Rendal.App.Delivery;

/// <summary>Letters of several parcels that a word processor makes PDFs of in one call, when the first of them is wanted.</summary>
internal sealed class LetterPdfBatch
{
    /// <summary>The most letters of one call. Parcels that are claimed for it go out even when their round is paused meanwhile.</summary>
    public const int Most = 20;

    private readonly List<(long Parcel, StatementDocument Document, Layout Layout)> waiting = [];
    private readonly Dictionary<long, byte[]> made = [];

    /// <summary>How many letters there are.</summary>
    public int Count => waiting.Count;

    /// <summary>Notes a document that is to be made with the others.</summary>
    public void Add(long parcel, StatementDocument document, Layout layout) => waiting.Add((parcel, document, layout));

    /// <summary>
    /// The PDF of a parcel's letter; null where it is none of these, or they could not be made together, so that each is tried by itself
    /// and the one that cannot be made is told.
    /// </summary>
    public byte[]? Take(long parcel)
    {
        if (waiting.Count > 0)
        {
            try
            {
                foreach (var (letter, pdf) in waiting.Zip(DocumentFile.Letters([.. waiting.Select(w => (w.Document, w.Layout))])))
                {
                    made.Add(letter.Parcel, pdf);
                }
            }
            catch (DocxConversionFailed) when (waiting.Count > 1)
            {
                made.Clear();
            }

            waiting.Clear();
        }

        return made.GetValueOrDefault(parcel);
    }
}
