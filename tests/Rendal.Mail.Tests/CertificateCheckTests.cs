using System.Globalization;
using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Rendal.Mail.Tests;

public class CertificateCheckTests
{
    private static readonly TimeZoneInfo Auckland = TimeZoneInfo.FindSystemTimeZoneById("Pacific/Auckland");

    [Theory]
    [InlineData("2026-03-01 20:00", "2026-03-03 20:00", "was good until 4 March 2026 and is no more")]
    [InlineData("2199-03-03 20:00", "2199-04-03 20:00", "is good from 4 March 2199 only")]
    public void Dates_are_told_in_the_zone_that_is_given_and_in_no_language_of_the_machine(string from, string until, string problem)
    {
        var before = CultureInfo.CurrentCulture;
        try
        {
            CultureInfo.CurrentCulture = CultureInfo.GetCultureInfo("de-DE");
            using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
            using var certificate = new CertificateRequest("CN=localhost", key, HashAlgorithmName.SHA256).CreateSelfSigned(
                Moment(from),
                Moment(until)
            );
            var check = new CertificateCheck(null, Auckland);
            Assert.False(check.IsGood(this, certificate, null, SslPolicyErrors.RemoteCertificateChainErrors));
            Assert.Equal(problem, check.Problem);
        }
        finally
        {
            CultureInfo.CurrentCulture = before;
        }
    }

    private static DateTimeOffset Moment(string utc) => DateTimeOffset.Parse(utc + "Z", CultureInfo.InvariantCulture);
}
