using Rendal.Core.Enclosures;
using Rendal.Files.Docx;

namespace Rendal.App.Readiness;

/// <summary>Where a person sees to what keeps a parcel from going.</summary>
public enum ProblemRemedy
{
    /// <summary>On the card of the customer.</summary>
    Card,

    /// <summary>Where copies are matched with invoices.</summary>
    Copies,

    /// <summary>In the words and layouts of the book.</summary>
    WordsAndPaper,

    /// <summary>The problem says it itself.</summary>
    Stated,
}

/// <summary>Finds it.</summary>
public static class ProblemRemedies
{
    /// <summary>Where a problem is seen to, by its words (see <see cref="ParcelReadiness.Look"/>).</summary>
    public static ProblemRemedy Of(string problem) =>
        problem.StartsWith(ParcelEnclosures.AboutCopies, StringComparison.Ordinal) ? ProblemRemedy.Copies
        : problem is ParcelReadiness.WordingError or ParcelReadiness.LayoutError ? ProblemRemedy.WordsAndPaper
        : problem == WordProcessor.Missing || problem.StartsWith(MessageSizes.TooLarge, StringComparison.Ordinal) ? ProblemRemedy.Stated
        : ProblemRemedy.Card;
}
