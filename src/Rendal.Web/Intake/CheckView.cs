using Rendal.Core.Intake;

namespace Rendal.Web.Intake;

/// <summary>A total that was compared.</summary>
/// <param name="Row">The total line; 0 for one that was typed in.</param>
internal sealed record CheckView(int Row, string Currency, string Said, string Sum, bool Agrees)
{
    /// <summary>A total that was compared.</summary>
    public static CheckView Of(ControlCheck c) =>
        new(c.Source.Row, c.Currency.Code, c.Currency.Plain(c.Said), c.Currency.Plain(c.Sum), c.Agrees);
}
