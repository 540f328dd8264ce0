using DiffPlex;
using DiffPlex.Chunkers;
using DiffPlex.DiffBuilder;
using DiffPlex.DiffBuilder.Model;
using Rendal.Mail;

namespace Rendal.App.Rounds;

/// <summary>How a piece of a text stands to the text of the others.</summary>
public enum DifferenceKind
{
    /// <summary>It stands in both.</summary>
    Same,

    /// <summary>It stands in this one alone.</summary>
    Added,

    /// <summary>It stands in that of the others alone.</summary>
    Removed,
}

/// <summary>A piece of a text that was compared word by word.</summary>
/// <param name="Text">The words, with the spaces and line ends between them.</param>
/// <param name="Kind">How it stands.</param>
public sealed record DifferencePiece(string Text, DifferenceKind Kind);

/// <summary>What of the words of one parcel differs from what it would say in the words of all, both filled.</summary>
/// <param name="Subject">The subject, piece by piece.</param>
/// <param name="Text">The text, piece by piece, without markup.</param>
public sealed record ParcelDifference(IReadOnlyList<DifferencePiece> Subject, IReadOnlyList<DifferencePiece> Text)
{
    /// <summary>Compares the words of a parcel; null where they are those of all, or one of the two cannot be filled.</summary>
    public static ParcelDifference? Of(ParcelContent parcel)
    {
        if (parcel.Change?.Words is null || parcel.WordsAsForAll() is not { } all || parcel.Words() is not { } own)
        {
            return null;
        }

        return new ParcelDifference(Pieces(all.Subject, own.Subject), Pieces(PlainText.Of(all.Body), PlainText.Of(own.Body)));
    }

    // The library's own words do not end at the end of a line: "regards" before one would be another word than "regards".
    private static readonly DelimiterChunker Words = new([' ', '\t', '\n', '.', ',', ';', ':', '!', '?', '(', ')']);

    private static List<DifferencePiece> Pieces(string all, string own)
    {
        var pieces = new List<DifferencePiece>();
        foreach (var line in new InlineDiffBuilder(new Differ()).BuildDiffModel(all, own, false, false, Words).Lines)
        {
            var kind = line.Type switch
            {
                ChangeType.Inserted => DifferenceKind.Added,
                ChangeType.Deleted => DifferenceKind.Removed,
                _ => DifferenceKind.Same,
            };
            if (pieces.Count > 0 && pieces[^1].Kind == kind)
            {
                pieces[^1] = pieces[^1] with { Text = pieces[^1].Text + line.Text };
            }
            else
            {
                pieces.Add(new DifferencePiece(line.Text, kind));
            }
        }

        return pieces;
    }
}
