using System.Diagnostics;
using System.Security.Cryptography;
using System.Text.Json;
using MimeKit;
using Rendal.Core.Wordings;

namespace Rendal.Mail.Tests;

/// <summary>
/// Messages read back by two parsers that know nothing of each other: MimeKit, and the email package of Python where the machine has it.
/// </summary>
public class SecondReaderTests
{
    private const string Reader = """
        import email, email.policy, hashlib, json, sys
        out = []
        for path in sys.argv[1:]:
            with open(path, 'rb') as f:
                m = email.message_from_binary_file(f, policy=email.policy.default)
            text = m.get_body(('plain',)).get_content()
            out.append({
                'subject': m['subject'], 'from': m['from'].addresses[0].display_name, 'to': [a.addr_spec for a in m['to'].addresses],
                'cc': [a.addr_spec for a in m['cc'].addresses] if m['cc'] else [],
                'bcc': m['bcc'], 'headers': sorted(set(h.lower() for h in m.keys())),
                'text': text, 'html': m.get_body(('html',)).get_content(), 'defects': [str(d) for d in m.defects],
                'files': [[a.get_filename(), a.get_content_type(),
                    hashlib.sha256(a.get_payload(decode=True)).hexdigest()] for a in m.iter_attachments()]})
        print(json.dumps(out))
        """;

    private static readonly string[] Texts =
    [
        "Statement for October",
        "Kontoauszug für Łabędź & Söhne, 1.240,00 €",
        "Виписка за жовтень — 10 000,00 ₴",
        "請求書 2026年10月",
        "كشف حساب أكتوبر",
        "🧺 towels 🧵",
        "=?utf-8?q?looks_encoded?=",
        "\"quoted\" <b>bold</b>, semi;colon (comment) back\\slash",
        "a line\r\nBcc: far@away.example\r\n\r\nand a body",
        "tab\there, controls \u0001\u0007, line\u2028separator",
        new string('x', 200) + " " + new string('ł', 120),
        "{{ customer.name }} %0d%0aBcc: far@away.example",
    ];

    [Fact]
    public async Task Both_parsers_read_the_same_texts_names_and_bytes()
    {
        Assert.SkipUnless(HasPython(), "This machine has no Python to read the messages a second time.");
        var folder = Directory.CreateTempSubdirectory("rendal-letters-").FullName;
        try
        {
            var drafts = Texts
                .Select(
                    (text, i) =>
                        new Draft(
                            text.Length > 60 ? text[..60] : text,
                            "accounts@tarnbrook.example",
                            ["kell@inn.example", "office@inn.example"],
                            ["copy@inn.example"],
                            text,
                            $"<p>{System.Net.WebUtility.HtmlEncode(text)}</p><p>.dot</p><p>From here</p><p><img "
                                + $"data-picture=\"1\" alt=\"{System.Net.WebUtility.HtmlEncode(text)}\"></p>",
                            "en",
                            [
                                new Enclosure(
                                    $"{text}.pdf",
                                    "application/pdf",
                                    [.. Enumerable.Range(0, 2_000 + i).Select(b => (byte)(b * 7))]
                                ),
                                new Enclosure("rows.csv", "text/csv", "a;b\n"u8.ToArray()),
                            ],
                            DateTimeOffset.UnixEpoch
                        )
                        {
                            Pictures = [new MessagePicture(1, "image/png", [0x89, 0x50, 0x4E, 0x47, (byte)i])],
                        }
                )
                .ToList();
            var files = new List<string>();
            foreach (var draft in drafts)
            {
                var path = Path.Combine(folder, $"{files.Count:00}.eml");
                await File.WriteAllBytesAsync(path, MessageBuilder.Make(draft).Bytes, TestContext.Current.CancellationToken);
                files.Add(path);
            }

            var second = JsonDocument.Parse(await ReadByPythonAsync(files)).RootElement.EnumerateArray().ToList();
            Assert.Equal(drafts.Count, second.Count);
            foreach (var (draft, read, path) in drafts.Zip(second, files))
            {
                using var first = await MimeMessage.LoadAsync(path, TestContext.Current.CancellationToken);
                Assert.Empty(read.GetProperty("defects").EnumerateArray());
                Assert.Equal(first.Subject, read.GetProperty("subject").GetString());
                Assert.Equal(first.From.Mailboxes.Single().Name, read.GetProperty("from").GetString());
                Assert.Equal(draft.To, Strings(read, "to"));
                Assert.Equal(draft.Copies, Strings(read, "cc"));
                Assert.Equal(JsonValueKind.Null, read.GetProperty("bcc").ValueKind);
                Assert.Equal(
                    ["cc", "content-type", "date", "from", "message-id", "mime-version", "subject", "to"],
                    Strings(read, "headers")
                );
                Assert.Equal(first.TextBody!.ReplaceLineEndings("\n"), read.GetProperty("text").GetString()!.ReplaceLineEndings("\n"));
                Assert.Equal(first.HtmlBody!.ReplaceLineEndings("\n"), read.GetProperty("html").GetString()!.ReplaceLineEndings("\n"));
                var names = first.Attachments.OfType<MimePart>().Select(p => p.FileName).ToList();
                var enclosed = read.GetProperty("files")
                    .EnumerateArray()
                    .Select(f => f.EnumerateArray().Select(v => v.GetString()!).ToArray())
                    .ToList();
                Assert.Equal(names, enclosed.Select(f => f[0]));
                Assert.Equal(
                    draft.Enclosures.Select(e => (e.ContentType, Convert.ToHexStringLower(SHA256.HashData(e.Bytes)))),
                    enclosed.Select(f => (f[1], f[2]))
                );
            }
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static IEnumerable<string?> Strings(JsonElement of, string name) =>
        of.GetProperty(name).EnumerateArray().Select(v => v.GetString());

    private static bool HasPython() =>
        (Environment.GetEnvironmentVariable("PATH") ?? "")
            .Split(':')
            .Any(folder => folder.Length > 0 && File.Exists(Path.Combine(folder, "python3")));

    private static async Task<string> ReadByPythonAsync(IEnumerable<string> files)
    {
        var start = new ProcessStartInfo("python3") { RedirectStandardOutput = true, RedirectStandardError = true };
        start.ArgumentList.Add("-c");
        start.ArgumentList.Add(Reader);
        foreach (var file in files)
        {
            start.ArgumentList.Add(file);
        }

        using var process = Process.Start(start)!;
        var errors = process.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken);
        var output = await process.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        Assert.True(process.ExitCode == 0, await errors);
        return output;
    }
}
