using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Rendal.App.Senders;
using Rendal.Postroom;
using Rendal.Web.Hosting;

namespace Rendal.Web.Postroom;

/// <summary>
/// The postroom's accounts: one for each book, with a password of its own that follows from a key of this installation. No program but
/// Rendal needs it, so that nobody is ever told it.
/// </summary>
internal sealed class BookAccounts(HostParts parts) : PracticeAccounts, IPracticeServer
{
    private const string Prefix = "book-";
    private const int KeyBytes = 32;

    private readonly Lazy<byte[]> key = new(() => Key(Path.Combine(parts.Data, "keys", "postroom")));

    /// <inheritdoc/>
    public int MailPort => parts.MailPort;

    /// <inheritdoc/>
    public bool IsAt(string host, int port) => MailServerCheck.IsThisMachine(host) && (port == parts.MailPort || port == parts.ImapPort);

    /// <inheritdoc/>
    public string UserName(long book) => Name(book);

    /// <summary>The name of a book's account.</summary>
    public static string Name(long book) => string.Create(CultureInfo.InvariantCulture, $"{Prefix}{book}");

    /// <inheritdoc/>
    public string Password(long book) => Convert.ToHexString(HMACSHA256.HashData(key.Value, Encoding.UTF8.GetBytes(Name(book))));

    /// <inheritdoc/>
    public override bool Has(string name, string password) =>
        name.StartsWith(Prefix, StringComparison.Ordinal)
        && long.TryParse(name.AsSpan(Prefix.Length), NumberStyles.None, CultureInfo.InvariantCulture, out var book)
        && CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(password), Encoding.UTF8.GetBytes(Password(book)));

    /// <summary>The key of the installation, made by whoever comes first of the processes that share a folder.</summary>
    private static byte[] Key(string file)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(file)!);
        if (!File.Exists(file))
        {
            var made = $"{file}.{Guid.NewGuid():N}";
            File.WriteAllBytes(made, RandomNumberGenerator.GetBytes(KeyBytes));
            File.SetUnixFileMode(made, UnixFileMode.UserRead | UnixFileMode.UserWrite);
            try
            {
                File.Move(made, file);
            }
            catch (IOException) when (File.Exists(file))
            {
                File.Delete(made);
            }
        }

        return File.ReadAllBytes(file) is { Length: KeyBytes } key
            ? key
            : throw new StartRefused($"{file} is not the key of the postroom. Delete it, and another one is made.");
    }
}
