using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Core.Money;

namespace Rendal.Web.Intake;

/// <summary>
/// Which of two columns is the amount, as it also stands among what the file lacks; the sums are over so many rows, the first of the file.
/// </summary>
internal sealed record AmountQuestionView(ColumnMeaning Meaning, string Says, IReadOnlyList<AmountChoiceView> Choices, int Rows)
{
    /// <summary>The question which column holds the amount; null where there is none.</summary>
    public static AmountQuestionView? Of(Reading? reading, Currency currency)
    {
        return reading?.Question is { } asked
            ? new(asked.Meaning, reading.Says(asked), [Choice(asked.Taken), Choice(asked.Other)], asked.Rows)
            : null;

        AmountChoiceView Choice(AmountChoice choice) =>
            new(choice.Index, ShownText.Of(reading!.Columns[choice.Index].Heading), currency.Plain(choice.Sum));
    }
}

/// <summary>A column that could be the amount, with what it comes to.</summary>
internal sealed record AmountChoiceView(int Column, string Heading, string Sum);
