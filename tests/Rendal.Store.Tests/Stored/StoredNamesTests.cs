using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Core.Intake;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Review;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;

namespace Rendal.Store.Tests.Stored;

/// <summary>
/// What is stored as JSON is read for years: a property that gets another name in the code would lose what was stored under the old one.
/// </summary>
public class StoredNamesTests
{
    private static readonly Type[] Roots =
    [
        typeof(Layout),
        typeof(Firm),
        typeof(SentAs),
        typeof(Customer),
        typeof(Choice),
        typeof(RoundSettings),
        typeof(StatementRules),
        typeof(ByHand),
        typeof(ParcelChange),
        typeof(Enclosing),
        typeof(ParcelEnclosure),
        typeof(Recognised),
        typeof(CopyOf),
        typeof(Remark),
        typeof(ParcelSum),
        typeof(ParcelAccount),
        typeof(RecipientAnswer),
        typeof(SavedReading),
        typeof(Correction),
    ];

    [Fact]
    public void The_names_under_which_values_are_stored_stay_as_they_are()
    {
        StoreJson.Options.MakeReadOnly(populateMissingResolver: true);
        var there = new SortedSet<string>(StringComparer.Ordinal);
        foreach (var root in Roots)
        {
            Collect(root, root.Name, there, []);
        }

        Assert.Equal(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "stored-names.txt")).TrimEnd(), string.Join('\n', there));
    }

    private static void Collect(Type type, string place, SortedSet<string> names, Stack<Type> within)
    {
        var info = StoreJson.Options.GetTypeInfo(type);
        if (type.IsEnum)
        {
            names.UnionWith(
                Enum.GetValues(type).Cast<object>().Select(v => $"{place} = {JsonSerializer.Serialize(v, type, StoreJson.Options)}")
            );
        }
        else if (Nullable.GetUnderlyingType(type) is { } value)
        {
            Collect(value, place, names, within);
        }
        else if (info.ElementType is { } element)
        {
            Collect(element, $"{place}[]", names, within);
        }
        else if (info.Kind == JsonTypeInfoKind.Object && !within.Contains(type))
        {
            within.Push(type);
            foreach (var derived in info.PolymorphismOptions?.DerivedTypes ?? [])
            {
                names.Add($"{place} = {derived.TypeDiscriminator}");
                Collect(derived.DerivedType, $"{place}<{derived.TypeDiscriminator}>", names, within);
            }

            foreach (var property in info.Properties)
            {
                names.Add($"{place}.{property.Name}");
                Collect(property.PropertyType, $"{place}.{property.Name}", names, within);
            }

            within.Pop();
        }
    }
}
