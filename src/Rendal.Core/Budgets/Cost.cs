namespace Rendal.Core.Budgets;

/// <summary>What work on something that a person brought can use up.</summary>
public enum Cost
{
    /// <summary>Pages of a document.</summary>
    Pages,

    /// <summary>Rows of a table.</summary>
    Rows,

    /// <summary>Cells of a table.</summary>
    Cells,

    /// <summary>Characters of text.</summary>
    Characters,

    /// <summary>Elements of a tree: of a text with markup, of a DOCX.</summary>
    Elements,

    /// <summary>Levels of elements inside each other.</summary>
    Levels,

    /// <summary>Slots and conditions of a template.</summary>
    Slots,

    /// <summary>Parts of a message (RFC 2046).</summary>
    Parts,

    /// <summary>Bytes, unpacked.</summary>
    Bytes,
}
