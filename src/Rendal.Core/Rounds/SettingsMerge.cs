using System.Reflection;
using Rendal.Core.Sealing;

namespace Rendal.Core.Rounds;

/// <summary>
/// What two people chose in one round at the same time: what each changed stands, unless both changed the same to something else.
/// </summary>
/// <param name="Settings">The settings with both people's changes; of no meaning where something is contested.</param>
/// <param name="Contested">The names of the settings that both changed, as properties of <see cref="RoundSettings"/> or
/// <see cref="Choice"/>: <c>LeastBalance</c>.</param>
public sealed record SettingsMerge(RoundSettings Settings, IReadOnlyList<string> Contested)
{
    private static readonly PropertyInfo[] OfRound =
    [
        .. typeof(RoundSettings).GetProperties().Where(p => p.CanWrite && p.Name != nameof(RoundSettings.Choice)),
    ];
    private static readonly PropertyInfo[] OfChoice = [.. typeof(Choice).GetProperties().Where(p => p.CanWrite)];

    /// <summary>Brings them together.</summary>
    /// <param name="seen">The settings that the second person saw.</param>
    /// <param name="now">What they are since the first person changed them.</param>
    /// <param name="wanted">What the second person wants instead of what they saw.</param>
    public static SettingsMerge Of(RoundSettings seen, RoundSettings now, RoundSettings wanted)
    {
        var contested = new List<string>();
        var choice = now.Choice with { };
        var settings = now with { Choice = choice };
        Merge(OfRound, seen, now, wanted, settings, contested);
        Merge(OfChoice, seen.Choice, now.Choice, wanted.Choice, choice, contested);
        return new SettingsMerge(settings, contested);
    }

    /// <summary>The names of the settings in which two differ.</summary>
    public static IReadOnlyList<string> Differing(RoundSettings a, RoundSettings b) =>
        [.. OfRound.Where(p => !Same(p, a, b)).Concat(OfChoice.Where(p => !Same(p, a.Choice, b.Choice))).Select(p => p.Name)];

    private static void Merge(PropertyInfo[] properties, object seen, object now, object wanted, object merged, List<string> contested)
    {
        foreach (var property in properties.Where(p => !Same(p, seen, wanted)))
        {
            if (!Same(property, seen, now) && !Same(property, now, wanted))
            {
                contested.Add(property.Name);
            }

            property.SetValue(merged, property.GetValue(wanted));
        }
    }

    private static bool Same(PropertyInfo property, object a, object b) =>
        CanonicalForm
            .Hash(property.PropertyType, property.GetValue(a))
            .SequenceEqual(CanonicalForm.Hash(property.PropertyType, property.GetValue(b)));
}
