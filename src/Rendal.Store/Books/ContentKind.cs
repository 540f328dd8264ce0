namespace Rendal.Store.Books;

/// <summary>What a message or document is made from, by what was changed of it.</summary>
public enum ContentKind
{
    /// <summary>The firm's lines and the rules for figures.</summary>
    Book,

    /// <summary>A wording.</summary>
    Wording,

    /// <summary>Which wording is used for what.</summary>
    WordingUse,

    /// <summary>A layout.</summary>
    Layout,

    /// <summary>Which layout is used for what.</summary>
    LayoutUse,

    /// <summary>A sender.</summary>
    Sender,

    /// <summary>A customer's card.</summary>
    Card,

    /// <summary>An item that is held back, or no longer.</summary>
    Hold,

    /// <summary>A payment set against an item by hand.</summary>
    Settlement,

    /// <summary>What was decided within a round.</summary>
    Decision,

    /// <summary>That reminders were sent.</summary>
    Reminded,

    /// <summary>Mail that came back, and what was decided about it.</summary>
    Returned,

    /// <summary>A file that can be enclosed.</summary>
    Enclosure,
}
