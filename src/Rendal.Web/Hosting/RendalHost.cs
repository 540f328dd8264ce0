using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.FileProviders;
using Npgsql;
using Rendal.App.Books;
using Rendal.App.Delivery;
using Rendal.App.Documents;
using Rendal.App.Intake;
using Rendal.App.Returned;
using Rendal.App.Senders;
using Rendal.Postroom;
using Rendal.Store;
using Rendal.Store.Books;
using Rendal.Store.Dispatch;
using Rendal.Store.People;
using Rendal.Store.Returned;
using Rendal.Web.Books;
using Rendal.Web.Corrections;
using Rendal.Web.Customers;
using Rendal.Web.Dispatch;
using Rendal.Web.Enclosures;
using Rendal.Web.Intake;
using Rendal.Web.Layouts;
using Rendal.Web.Postroom;
using Rendal.Web.Rounds;
using Rendal.Web.Senders;
using Rendal.Web.SignIn;
using Rendal.Web.Today;
using Rendal.Web.Wordings;
using Serilog;
using Serilog.Events;

namespace Rendal.Web.Hosting;

/// <summary>Puts the application together.</summary>
internal static class RendalHost
{
    /// <summary>The largest file that can be taken in.</summary>
    public const long LargestUpload = 512L * 1024 * 1024;

    /// <summary>How long what is under way may take to its end when the program stops.</summary>
    private static readonly TimeSpan LongestStop = TimeSpan.FromSeconds(2.5);

    /// <summary>Puts the application together; it does not listen yet.</summary>
    public static WebApplication Build(HostParts parts)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Host.UseSerilog(
            (_, log) =>
                log
                    .MinimumLevel.Information()
                    .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
                    .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
                    .WriteTo.Console(
                        formatProvider: CultureInfo.InvariantCulture,
                        restrictedToMinimumLevel: LogEventLevel.Warning,
                        standardErrorFromLevel: LogEventLevel.Verbose
                    )
                    .WriteTo.File(
                        Path.Combine(parts.Data, "logs", "rendal-.log"),
                        rollingInterval: RollingInterval.Day,
                        retainedFileCountLimit: 14,
                        formatProvider: CultureInfo.InvariantCulture
                    )
        );
        builder.WebHost.ConfigureKestrel(options =>
        {
            options.AddServerHeader = false;
            options.Limits.MaxRequestBodySize = LargestUpload;
            options.Listen(
                parts.Role == Role.Worker ? System.Net.IPAddress.Loopback : parts.Listen,
                parts.Role == Role.Worker ? 0 : parts.Port
            );
        });
        AddServices(builder.Services, parts);
        var app = builder.Build();
        UseAll(app, parts);
        return app;
    }

    private static void AddServices(IServiceCollection services, HostParts parts)
    {
        services.AddSingleton(parts);
        services.AddSingleton(parts.Clock);
        services.AddSingleton(parts.Mail);
        services.AddSingleton(_ => Database.Source(parts.Database));

        // The same few statements thousands of times over: to plan them each time anew takes longer than to do them.
        services.AddKeyedSingleton(DispatchQueue.Source, (_, _) => DispatchQueue.Connect(parts.Database));
        services
            .AddSingleton<PersonStore>()
            .AddSingleton<SessionStore>()
            .AddSingleton<SignInCounts>()
            .AddSingleton<KnownBrowsers>()
            .AddSingleton<SignInGuard>()
            .AddSingleton<BookStore>()
            .AddSingleton(services => new DispatchQueue(services.GetRequiredKeyedService<NpgsqlDataSource>(DispatchQueue.Source)))
            .AddSingleton<RoundEnds>()
            .AddSingleton<RoundEndNotice>()
            .AddSingleton<ReplyMailboxStore>()
            .AddSingleton<ReplyFetching>()
            .AddSingleton<MakeBook>();
        services
            .AddSingleton<BookAccounts>()
            .AddSingleton<IPracticeServer>(services => services.GetRequiredService<BookAccounts>())
            .AddPostroom(Path.Combine(parts.Data, "postroom"), services => services.GetRequiredService<BookAccounts>());
        services.AddSingleton<OpenedFiles>().AddSingleton<ProgressResponse>();
        services.AddSingleton<PreviewRenderer>().AddSingleton<SenderSecrets>();
        services.AddSingleton<PasswordHasher<Person>>();
        services
            .AddDataProtection()
            .SetApplicationName("Rendal")
            .PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(parts.Data, "keys")));
        services.AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme).AddCookie(SessionCookie.Configure);
        services
            .AddAuthorizationBuilder()
            .SetFallbackPolicy(new Microsoft.AspNetCore.Authorization.AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
        services.ConfigureHttpJsonOptions(json =>
        {
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            json.SerializerOptions.RespectNullableAnnotations = true;
            json.SerializerOptions.RespectRequiredConstructorParameters = true;
            json.SerializerOptions.AllowOutOfOrderMetadataProperties = true;
            json.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
        });
        services.Configure<FormOptions>(form => form.MultipartBodyLengthLimit = LargestUpload);
        services.Configure<HostFilteringOptions>(filter => filter.AllowedHosts = ["127.0.0.1", "localhost", "[::1]", .. parts.Hosts]);
        services.Configure<ForwardedHeadersOptions>(forwarded => Trust(forwarded, parts.Proxies));
        services.Configure<HostOptions>(host => host.ShutdownTimeout = LongestStop);
        services.AddProblemDetails();

        // So that what is not understood of a request is told, and not only that.
        services.Configure<RouteHandlerOptions>(handlers => handlers.ThrowOnBadRequest = true);
        services.AddExceptionHandler<Problems>();
        services.AddOpenApi("v1", document => document.AddOperationTransformer<BookParameter>());
        services.AddHostedService<FirstRunOffer>();
        if (parts.Role != Role.Worker)
        {
            services.AddHostedService<PostroomServer>();
        }

        if (parts.Role != Role.Web)
        {
            services.AddHostedService<DispatchWorker>().AddHostedService<RoundEndService>().AddHostedService<ReplyMailboxService>();
        }
    }

    private static void UseAll(WebApplication app, HostParts parts)
    {
        if (parts.Proxies.Count > 0)
        {
            app.UseForwardedHeaders();
        }

        if (parts.PathBase.Length > 0)
        {
            app.UsePathBase(parts.PathBase);
        }

        app.UseHostFiltering();
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.Use(Guards.HeadersAsync);
        if (parts.WebRoot is { } root && Directory.Exists(root))
        {
            var files = new PhysicalFileProvider(Path.GetFullPath(root));
            app.UseStaticFiles(new StaticFileOptions { FileProvider = files, OnPrepareResponse = Caching });
        }

        app.UseRouting();
        app.UseAuthentication();
        app.UseAuthorization();
        app.Use(Guards.SameSiteAsync);
        app.Use(Guards.SmallBodyAsync);
        var api = app.MapGroup("/api").AddEndpointFilterFactory(RequestCheck.Filter);
        SignInEndpoints.Map(api);
        BookEndpoints.Map(api);
        JoinEndpoints.Map(api);
        PasswordEndpoints.Map(api);
        SessionEndpoints.Map(api);
        var book = api.MapGroup("/books/{book:long}");
        PeopleEndpoints.Map(book);
        IntakeEndpoints.Map(book);
        CustomerEndpoints.Map(book);
        CorrectionEndpoints.Map(book);
        WordingEndpoints.Map(book);
        PictureEndpoints.Map(book);
        LayoutEndpoints.Map(book);
        SenderEndpoints.Map(book);
        ReplyMailboxEndpoints.Map(book);
        RoundEndpoints.Map(book);
        RoundFileEndpoints.Map(book);
        RoundProgressEndpoints.Map(book);
        CountEndpoints.Map(book);
        ParcelEndpoints.Map(book);
        RemarkEndpoints.Map(book);
        ParcelListEndpoints.Map(book);
        RehearsalEndpoints.Map(book);
        EnclosureEndpoints.Map(book);
        AccountEndpoints.Map(book);
        ChoiceEndpoints.Map(book);
        TodayEndpoints.Map(book);
        DispatchEndpoints.Map(book);
        ReturnedEndpoints.Map(book);
        PostroomEndpoints.Map(book);
        app.MapFallback("/api/{**rest}", () => Results.NotFound());
        if (parts.WebRoot is { } index && File.Exists(Path.Combine(index, "index.html")))
        {
            // The page finds its own way from any address.
            var page = File.ReadAllText(Path.Combine(index, "index.html"))
                .Replace("<base href=\"/\"", $"<base href=\"{parts.PathBase}/\"", StringComparison.Ordinal);
            app.MapFallback(context =>
                {
                    context.Response.ContentType = "text/html; charset=utf-8";
                    context.Response.Headers.CacheControl = "no-cache";
                    return context.Response.WriteAsync(page, context.RequestAborted);
                })
                .AllowAnonymous();
        }
    }

    /// <summary>Takes the word of proxies that were named, and of no other, for the address and the scheme of a request.</summary>
    private static void Trust(ForwardedHeadersOptions forwarded, IReadOnlyList<string> proxies)
    {
        forwarded.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost;
        forwarded.KnownProxies.Clear();
        forwarded.KnownIPNetworks.Clear();
        foreach (var proxy in proxies)
        {
            if (System.Net.IPNetwork.TryParse(proxy, out var network))
            {
                forwarded.KnownIPNetworks.Add(network);
            }
            else
            {
                forwarded.KnownProxies.Add(
                    System.Net.IPAddress.TryParse(proxy, out var address)
                        ? address
                        : throw new StartRefused($"RENDAL_PROXIES: “{proxy}” is neither an address nor a network such as 10.0.0.0/24.")
                );
            }
        }
    }

    /// <summary>Built files carry their hash in the name and never change; the page that names them always may.</summary>
    private static void Caching(Microsoft.AspNetCore.StaticFiles.StaticFileResponseContext context) =>
        context.Context.Response.Headers.CacheControl = context.File.Name.EndsWith(".html", StringComparison.Ordinal)
            ? "no-cache"
            : "public, max-age=31536000, immutable";
}
