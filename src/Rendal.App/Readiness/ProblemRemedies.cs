using Rendal.Core.Enclosures;
using Rendal.Files.Docx;

namespace Rendal.App.Readiness;

/// <summary>Finds where a person sees to a problem.</summary>
public static class ProblemRemedies
{
    /// <summary>Where a problem is seen to, by its words (see <see cref="ParcelReadiness.Look"/>).</summary>
    public static ProblemRemedy Of(string problem) =>
        problem.StartsWith(ParcelEnclosures.AboutCopies, StringComparison.Ordinal) ? ProblemRemedy.Copies
        : problem is ParcelReadiness.WordingError or ParcelReadiness.LayoutError ? ProblemRemedy.WordsAndPaper
        : problem == WordProcessor.Missing || problem.StartsWith(MessageSizes.TooLarge, StringComparison.Ordinal) ? ProblemRemedy.Stated
        : ProblemRemedy.Card;
}
