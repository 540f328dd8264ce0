using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// Finds out from all credits and payments of one column whether they carry a minus, or leave it to the kind to say that they count
/// against what is owed.
/// </summary>
public sealed class CreditSigns
{
    private int belowZero;
    private int aboveZero;

    /// <summary>Whether credits stand without a sign: all, or more of them, are above zero.</summary>
    public bool Unsigned => aboveZero > belowZero;

    /// <summary>Whether some carry a sign and some do not, so that the fewer have to be decided by a person.</summary>
    public bool Mixed => aboveZero > 0 && belowZero > 0;

    /// <summary>Whether as many stand with a sign as without, so that all of them have to be decided.</summary>
    public bool Tied => Mixed && aboveZero == belowZero;

    /// <summary>Shows the amount of one credit or payment. Zero, and what is no amount, says nothing.</summary>
    public void Show(Cell cell)
    {
        bool negative;
        if (cell.Number is { } number)
        {
            if (number == 0)
            {
                return;
            }

            negative = number < 0;
        }
        else if (WrittenAmount.TryTake(cell.Text, out var amount) && amount.Digits.Any(c => c is >= '1' and <= '9'))
        {
            negative = amount.Negative;
        }
        else
        {
            return;
        }

        belowZero += negative ? 1 : 0;
        aboveZero += negative ? 0 : 1;
    }
}
