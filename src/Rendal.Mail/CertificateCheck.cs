using System.Globalization;
using System.Net.Security;
using System.Security.Cryptography.X509Certificates;

namespace Rendal.Mail;

/// <summary>
/// Whether a server's certificate is good: for this server, in its time, and signed by an authority that is trusted. Whether it was called
/// back is not asked: where that cannot be looked up, as within many firms, nothing could be sent.
/// </summary>
/// <param name="authorities">Authorities that are trusted beside those that the machine trusts; null for none.</param>
/// <param name="zone">The zone that dates are told in.</param>
internal sealed class CertificateCheck(X509Certificate2Collection? authorities, TimeZoneInfo zone)
{
    /// <summary>What is wrong with the certificate that was shown last, as the end of a sentence; empty where nothing is.</summary>
    public string Problem { get; private set; } = "";

    /// <summary>The answer that MailKit asks for.</summary>
    public bool IsGood(object sender, X509Certificate? certificate, X509Chain? chain, SslPolicyErrors errors)
    {
        Problem =
            errors == SslPolicyErrors.None || certificate is not X509Certificate2 shown
                ? errors == SslPolicyErrors.None
                    ? ""
                    : "is missing"
                : errors.HasFlag(SslPolicyErrors.RemoteCertificateNameMismatch)
                    ? $"is for {Names(shown)} and not for this server"
                    : IsSignedByOurs(shown, chain)
                        ? ""
                        : shown.NotAfter.ToUniversalTime() < DateTime.UtcNow
                            ? $"was good until {Day(shown.NotAfter)} and is no more"
                            : shown.NotBefore.ToUniversalTime() > DateTime.UtcNow
                                ? $"is good from {Day(shown.NotBefore)} only"
                                : $"is signed by “{shown.GetNameInfo(X509NameType.SimpleName, forIssuer: true)}”, whom this "
                                    + "machine does not trust";
        return Problem.Length == 0;
    }

    private string Day(DateTime moment) =>
        TimeZoneInfo.ConvertTimeFromUtc(moment.ToUniversalTime(), zone).ToString("d MMMM yyyy", CultureInfo.InvariantCulture);

    private bool IsSignedByOurs(X509Certificate2 shown, X509Chain? chain)
    {
        if (authorities is null)
        {
            return false;
        }

        using var own = new X509Chain();
        own.ChainPolicy.TrustMode = X509ChainTrustMode.CustomRootTrust;
        own.ChainPolicy.CustomTrustStore.AddRange(authorities);
        own.ChainPolicy.RevocationMode = X509RevocationMode.NoCheck;
        foreach (var between in chain?.ChainElements.AsEnumerable() ?? [])
        {
            own.ChainPolicy.ExtraStore.Add(between.Certificate);
        }

        return own.Build(shown);
    }

    private static string Names(X509Certificate2 shown) =>
        shown.Extensions.OfType<X509SubjectAlternativeNameExtension>().SelectMany(e => e.EnumerateDnsNames()).FirstOrDefault()
        ?? shown.GetNameInfo(X509NameType.DnsName, forIssuer: false);
}
