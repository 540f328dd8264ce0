namespace Rendal.Core.Money;

/// <summary>The character that stands before the decimals of an amount.</summary>
public enum DecimalMark
{
    /// <summary>1,234.50</summary>
    Point,

    /// <summary>1.234,50</summary>
    Comma,
}
