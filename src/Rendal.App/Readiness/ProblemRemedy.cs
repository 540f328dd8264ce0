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
