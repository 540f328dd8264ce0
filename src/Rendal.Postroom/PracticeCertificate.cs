using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Rendal.Postroom;

/// <summary>Which certificate the postroom secures the line with.</summary>
public enum PracticeCertificate
{
    /// <summary>A good one, of the postroom's own authority, which nobody trusts who was not told to.</summary>
    Good,

    /// <summary>One whose time is over.</summary>
    Expired,

    /// <summary>One for another server's name.</summary>
    OtherName,

    /// <summary>One that is signed by itself.</summary>
    OfNobody,
}

/// <summary>The certificates of the postroom. They are made anew for each run, their authority with them.</summary>
public sealed class PracticeCertificates
{
    private readonly ECDsa key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
    private readonly Dictionary<PracticeCertificate, X509Certificate2> made = [];

    /// <summary>Makes them.</summary>
    public PracticeCertificates()
    {
        var now = DateTimeOffset.UtcNow;
        var request = new CertificateRequest("CN=Postroom practice authority", key, HashAlgorithmName.SHA256);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, false, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign | X509KeyUsageFlags.CrlSign, true));
        Authority = request.CreateSelfSigned(now.AddYears(-2), now.AddYears(1));
        made[PracticeCertificate.Good] = Make("postroom.rendal.example", now.AddDays(-1), now.AddDays(300), Authority);
        made[PracticeCertificate.Expired] = Make("postroom.rendal.example", now.AddDays(-40), now.AddDays(-10), Authority);
        made[PracticeCertificate.OtherName] = Make(
            "another.rendal.example",
            now.AddDays(-1),
            now.AddDays(300),
            Authority,
            alsoHere: false
        );
        made[PracticeCertificate.OfNobody] = Make("postroom.rendal.example", now.AddDays(-1), now.AddDays(300), null);
    }

    /// <summary>The authority that signed them, to be trusted by who wants to practise with a secured line.</summary>
    public X509Certificate2 Authority { get; }

    /// <summary>The certificate of a kind, made on the first start.</summary>
    internal X509Certificate2 Of(PracticeCertificate which) => made[which];

    private static X509Certificate2 Make(
        string name,
        DateTimeOffset from,
        DateTimeOffset to,
        X509Certificate2? authority,
        bool alsoHere = true
    )
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest($"CN={name}", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        names.AddDnsName(name);
        if (alsoHere)
        {
            names.AddDnsName("localhost");
            names.AddIpAddress(IPAddress.Loopback);
        }

        request.CertificateExtensions.Add(names.Build());
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid("1.3.6.1.5.5.7.3.1")], false));
        using var signed = authority is null
            ? request.CreateSelfSigned(from, to)
            : request.Create(authority, from, to, RandomNumberGenerator.GetBytes(12));
        using var withKey = signed.HasPrivateKey ? new X509Certificate2(signed) : signed.CopyWithPrivateKey(key);
        return X509CertificateLoader.LoadPkcs12(withKey.Export(X509ContentType.Pkcs12), null);
    }
}
