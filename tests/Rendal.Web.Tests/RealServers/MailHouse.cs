using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Rendal.Core.Tests;
using Rendal.Trials;

namespace Rendal.Web.Tests.RealServers;

/// <summary>
/// Debian's postfix and dovecot in a folder and at ports of their own, with an authority of their own. Postfix takes mail for
/// <c>tarnbrook.example</c> and <c>house.example</c> by STARTTLS from whoever signs in, and dovecot keeps it, with sieve and
/// quota. Both run as users that their packages make, so that only root can start them.
/// </summary>
internal sealed class MailHouse : IAsyncDisposable
{
    public const string UserName = "accounts";
    public const string Password = "a-password-of-the-house";

    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("rendal-mail-house-");

    private MailHouse() => (SmtpPort, ImapPort) = (FreePort.Find(), FreePort.Find());

    /// <summary>Why they cannot be started here; null where they can.</summary>
    public static string? Lacking =>
        !File.Exists("/usr/sbin/postfix") ? "postfix is not installed: apt-get install postfix"
        : !File.Exists("/usr/lib/dovecot/modules/lib90_sieve_plugin.so")
            ? "dovecot is not installed with sieve: apt-get install dovecot-imapd dovecot-lmtpd dovecot-sieve"
        : !Environment.IsPrivilegedProcess ? "only root can start postfix and dovecot"
        : null;

    public int SmtpPort { get; }

    public int ImapPort { get; }

    /// <summary>The authority that signed the servers' certificate.</summary>
    public X509Certificate2Collection Authorities { get; } = [];

    private string Etc => Path.Combine(folder.FullName, "etc");

    public static async Task<MailHouse> StartAsync(CancellationToken cancel)
    {
        var house = new MailHouse();
        try
        {
            house.Write(FreePort.Find());
            await RunAsync("chmod", "755", house.folder.FullName);
            await RunAsync(
                "chown",
                "-R",
                "nobody:nogroup",
                Path.Combine(house.folder.FullName, "home"),
                Path.Combine(house.folder.FullName, "sieve")
            );
            await RunAsync("chown", "postfix", Path.Combine(house.folder.FullName, "data"));
            await RunAsync("postfix", "-c", house.Etc, "start");
            await RunAsync("dovecot", "-c", Path.Combine(house.Etc, "dovecot.conf"));
            await Eventually.HoldsAsync(() => IsListeningAsync(house.SmtpPort, cancel));
            await Eventually.HoldsAsync(() => IsListeningAsync(house.ImapPort, cancel));
            return house;
        }
        catch
        {
            await house.DisposeAsync();
            throw;
        }
    }

    /// <summary>Waits until postfix has nothing left to deliver.</summary>
    public async Task DeliveredAsync(CancellationToken cancel)
    {
        await Eventually.HoldsAsync(async () => !(await RunAsync("postqueue", "-c", Etc, "-p")).Contains('@', StringComparison.Ordinal));
    }

    public async ValueTask DisposeAsync()
    {
        await RunAsync("doveadm", "-c", Path.Combine(Etc, "dovecot.conf"), "stop");
        await RunAsync("postfix", "-c", Etc, "stop");
        folder.Delete(recursive: true);
    }

    private void Write(int lmtpPort)
    {
        foreach (var name in new[] { "etc", "spool", "data", "run", "state", "home", "sieve" })
        {
            folder.CreateSubdirectory(name);
        }

        WriteCertificate();
        Put(
            "etc/master.cf",
            $"""
            127.0.0.1:{SmtpPort} inet n - n - - smtpd
            pickup unix n - n 60 1 pickup
            cleanup unix n - n - 0 cleanup
            qmgr unix n - n 300 1 qmgr
            tlsmgr unix - - n 1000? 1 tlsmgr
            rewrite unix - - n - - trivial-rewrite
            bounce unix - - n - 0 bounce
            defer unix - - n - 0 bounce
            trace unix - - n - 0 bounce
            verify unix - - n - 1 verify
            flush unix n - n 1000? 0 flush
            proxymap unix - - n - - proxymap
            scache unix - - n - 1 scache
            smtp unix - - n - - smtp
            lmtp unix - - n - - lmtp
            error unix - - n - - error
            retry unix - - n - - error
            anvil unix - - n - 1 anvil
            postlog unix-dgram n - n - 1 postlogd

            """
        );
        Put(
            "etc/main.cf",
            $$"""
            compatibility_level = 3.6
            queue_directory = {{folder.FullName}}/spool
            data_directory = {{folder.FullName}}/data
            command_directory = /usr/sbin
            daemon_directory = /usr/lib/postfix/sbin
            mail_owner = postfix
            setgid_group = postdrop
            maillog_file = {{folder.FullName}}/postfix.log
            maillog_file_prefixes = {{Path.GetTempPath().TrimEnd('/')}}, /tmp
            inet_interfaces = 127.0.0.1
            inet_protocols = ipv4
            disable_dns_lookups = yes
            smtp_host_lookup = native
            myhostname = mail.tarnbrook.example
            mydestination =
            alias_maps =
            relay_domains = tarnbrook.example, house.example
            transport_maps = inline:{ {tarnbrook.example=lmtp:[127.0.0.1]:{{lmtpPort}}}, {house.example=lmtp:[127.0.0.1]:{{lmtpPort}}} }
            virtual_alias_maps = inline:{ {alias@house.example=gone@house.example} }
            mynetworks =
            smtpd_tls_security_level = may
            smtpd_tls_cert_file = {{folder.FullName}}/etc/server.pem
            smtpd_tls_key_file = {{folder.FullName}}/etc/server.key
            smtpd_tls_auth_only = yes
            smtpd_sasl_auth_enable = yes
            smtpd_sasl_type = dovecot
            smtpd_sasl_path = private/auth
            smtpd_relay_restrictions = permit_sasl_authenticated, permit_auth_destination, reject
            smtpd_recipient_restrictions = check_recipient_access inline:{
                {refused@house.example = 550 5.1.1 no such person in this house},
                {grey@house.example = 450 4.7.1 come back later} },
                permit_sasl_authenticated, permit_auth_destination, reject

            """
        );
        Put(
            "etc/users",
            $"{UserName}:{{PLAIN}}{Password}::::::\n{string.Concat(new[] { "kell", "anna", "reject", "away" }.Select(u => $"{u}:{{PLAIN}}x::::::\n"))}full:{{PLAIN}}x::::::userdb_quota_rule=*:bytes=100\n"
        );
        Put(
            "etc/dovecot.conf",
            $$"""
            instance_name = {{folder.Name}}
            base_dir = {{folder.FullName}}/run
            state_dir = {{folder.FullName}}/state
            log_path = {{folder.FullName}}/dovecot.log
            protocols = imap lmtp
            listen = 127.0.0.1
            ssl = required
            ssl_cert = <{{folder.FullName}}/etc/server.pem
            ssl_key = <{{folder.FullName}}/etc/server.key
            auth_mechanisms = plain login
            auth_username_format = %n
            first_valid_uid = 1
            mail_uid = nobody
            mail_gid = nogroup
            mail_location = maildir:{{folder.FullName}}/home/%n
            postmaster_address = postmaster@house.example
            hostname = mx.house.example
            submission_host = 127.0.0.1:{{SmtpPort}}
            passdb {
              driver = passwd-file
              args = {{folder.FullName}}/etc/users
            }
            userdb {
              driver = passwd-file
              args = {{folder.FullName}}/etc/users
              override_fields = uid=nobody gid=nogroup home={{folder.FullName}}/home/%n
            }
            service imap-login {
              chroot =
              inet_listener imap {
                port = {{ImapPort}}
              }
              inet_listener imaps {
                port = 0
              }
            }
            service anvil {
              chroot =
            }
            service lmtp {
              inet_listener lmtp {
                port = {{lmtpPort}}
              }
            }
            service auth {
              unix_listener {{folder.FullName}}/spool/private/auth {
                user = postfix
                mode = 0600
              }
            }
            protocol lmtp {
              mail_plugins = quota sieve
            }
            plugin {
              quota = maildir:User
              quota_rule = *:storage=100M
              quota_rule2 = Trash:storage=+10M
              sieve = file:{{folder.FullName}}/sieve/%n.sieve
            }

            """
        );
        Put("sieve/reject.sieve", "require [\"reject\"];\nreject \"We take statements on paper only.\";\n");
        Put(
            "sieve/away.sieve",
            "require [\"vacation\"];\nvacation :days 1 :subject \"Delivery failed: I am away\" \"Back on Monday. 550 5.1.1 "
                + "stands on my door.\";\n"
        );
    }

    private void WriteCertificate()
    {
        using var authorityKey = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var authority = new CertificateRequest("CN=Authority of the house", authorityKey, HashAlgorithmName.SHA256);
        authority.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, false, 0, true));
        using var signed = authority.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(2));
        Authorities.Add(X509CertificateLoader.LoadCertificate(signed.RawData));

        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var server = new CertificateRequest("CN=localhost", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        names.AddDnsName("localhost");
        server.CertificateExtensions.Add(names.Build());
        using var certificate = server.Create(
            signed,
            DateTimeOffset.UtcNow.AddDays(-1),
            DateTimeOffset.UtcNow.AddDays(1),
            RandomNumberGenerator.GetBytes(8)
        );
        Put("etc/server.pem", certificate.ExportCertificatePem());
        Put("etc/server.key", key.ExportPkcs8PrivateKeyPem());
    }

    private void Put(string path, string content) => File.WriteAllText(Path.Combine(folder.FullName, path), content);

    private static async Task<bool> IsListeningAsync(int port, CancellationToken cancel)
    {
        using var socket = new TcpClient();
        try
        {
            await socket.ConnectAsync(IPAddress.Loopback, port, cancel);
            return true;
        }
        catch (SocketException)
        {
            return false;
        }
    }

    private static async Task<string> RunAsync(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!;

        // Servers that stay keep the other end open: what they say first is waited for, not the end of it.
        await process.WaitForExitAsync();
        if (process.ExitCode != 0)
        {
            var complaint = await process.StandardError.ReadToEndAsync();
            throw new InvalidOperationException($"{program} {string.Join(' ', arguments)} ended with {process.ExitCode}: {complaint}");
        }

        return program == "postqueue" ? await process.StandardOutput.ReadToEndAsync() : "";
    }
}
