using Rendal.Core.Layouts;
using static QRCoder.PayloadGenerator;

namespace Rendal.Files.Pdf;

/// <summary>The text of the QR code of a transfer: version 002 of EPC069-12, in UTF-8.</summary>
internal static class SepaCode
{
    /// <summary>Eleven lines, of which those at the end that are empty are left away. A BIC that is none is left empty.</summary>
    /// <exception cref="Girocode.GirocodeException">The amount or the IBAN is none that a transfer can have.</exception>
    public static string Text(SepaTransfer transfer) =>
        new Girocode(
            transfer.Iban,
            SepaTransfer.IsBic(transfer.Bic) ? transfer.Bic : "",
            transfer.NameInCode,
            transfer.Amount,
            transfer.RemittanceInCode,
            Girocode.TypeOfRemittance.Unstructured,
            version: Girocode.GirocodeVersion.Version2,
            encoding: Girocode.GirocodeEncoding.UTF_8
        )
            .ToString()
            .TrimEnd('\n');
}
