using Rendal.App.People;
using Rendal.Store.People;
using Rendal.Web.Hosting;

namespace Rendal.Web.SignIn;

/// <summary>Offers the key that the first person needs to whichever process that person reaches.</summary>
internal sealed class FirstRunOffer(HostParts parts, PersonStore people) : IHostedService
{
    /// <inheritdoc/>
    public Task StartAsync(CancellationToken cancellationToken) =>
        parts is { FirstRunKey: { } key, Role: not Role.Worker }
            ? people.OfferFirstRunAsync(SecretKey.Hash(key), cancellationToken)
            : Task.CompletedTask;

    /// <inheritdoc/>
    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;
}
