using Microsoft.AspNetCore.Connections;
using Microsoft.AspNetCore.Server.Kestrel.Core;
using Microsoft.Extensions.DependencyInjection;

namespace Rendal.Postroom;

/// <summary>Adds the postroom to a web server.</summary>
public static class PostroomListening
{
    /// <summary>What a port without STARTTLS is called.</summary>
    internal const string Secured = "secured from the first byte";

    /// <summary>Adds what the postroom is made of; its mailbox is in a folder.</summary>
    /// <param name="services">What it is added to.</param>
    /// <param name="folder">The folder.</param>
    /// <param name="accounts">Who may sign in.</param>
    public static IServiceCollection AddPostroom(
        this IServiceCollection services,
        string folder,
        Func<IServiceProvider, PracticeAccounts> accounts
    ) =>
        services
            .AddSingleton(_ => new Mailbox(folder))
            .AddSingleton(accounts)
            .AddSingleton(s => new Drills(folder, s.GetRequiredService<TimeProvider>()))
            .AddSingleton<PracticeCertificates>();

    /// <summary>Listens for mail programs on a port of 127.0.0.1; 0 takes a free one.</summary>
    /// <param name="options">The web server's.</param>
    /// <param name="port">The port.</param>
    /// <param name="secured">Whether the line is secured from the first byte (RFC 8314).</param>
    public static void ListenForMail(this KestrelServerOptions options, int port, bool secured = false) =>
        options.Listen<SmtpConnectionHandler>(port, secured);

    /// <summary>Listens for programs that fetch what came back, on a port of 127.0.0.1; 0 takes a free one.</summary>
    /// <param name="options">The web server's.</param>
    /// <param name="port">The port.</param>
    /// <param name="secured">Whether the line is secured from the first byte (RFC 8314).</param>
    public static void ListenForFetching(this KestrelServerOptions options, int port, bool secured = false) =>
        options.Listen<ImapConnectionHandler>(port, secured);

    private static void Listen<T>(this KestrelServerOptions options, int port, bool secured)
        where T : MailConnectionHandler => options.Listen(System.Net.IPAddress.Loopback, port, listen =>
        {
            if (secured)
            {
                listen.Use(next =>
                    connection =>
                    {
                        connection.Items[Secured] = true;
                        return next(connection);
                    }
                );
            }

            listen.UseConnectionHandler<T>();
        });
}
