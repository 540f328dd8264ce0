using Rendal.Core.Money;

namespace Rendal.Core.Rounds;

/// <summary>Is told what is left out while it is decided.</summary>
internal interface ILeftOut
{
    void Add(string? customer, Currency? currency, LeftOutReason reason, decimal amount, int items = 1);
}
