using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>What holds where a file does not say: the book's settings, or the options of the command line.</summary>
/// <param name="Currency">The currency of rows that name none.</param>
/// <param name="TermsDays">Days from the document date to the due date where neither file nor customer says; 30 by default.</param>
/// <param name="Mark">The decimal mark where the values leave it open.</param>
/// <param name="Order">The date order where the values leave it open.</param>
public sealed record ReadingSettings(
    Currency Currency,
    int TermsDays = 30,
    DecimalMark Mark = DecimalMark.Point,
    DateOrder Order = DateOrder.DayFirst
);
