using Rendal.Core.Layouts;
using Rendal.Files;
using Rendal.Html;

namespace Rendal.App.Wordings;

/// <summary>The codes that are scanned to pay, in the filled body of a message.</summary>
public static class PaymentCodes
{
    /// <summary>The picture (PNG) of each code that a body has a place for.</summary>
    public static IReadOnlyDictionary<PaymentCode, byte[]> Of(string body) =>
        PaymentCodePlaces.Of(body).ToDictionary(code => code, CodePicture.Png);
}
