using System.Collections;
using System.Collections.Concurrent;
using System.ComponentModel.DataAnnotations;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using Rendal.App;

namespace Rendal.Web.Hosting;

/// <summary>
/// Looks at every value of a request before a handler sees it: what can be kept by no database, is longer than anything is,
/// lies outside of what can be reckoned with, or is missing inside a list, is refused with the place where it stands. What a
/// field allows beyond that or instead of it stands at the field, as an attribute.
/// </summary>
internal static class RequestCheck
{
    private const int LongestText = 20_000;
    private const int LongestInAddress = 500;
    private const int MostElements = 100_000;
    private const int MostLevels = 12;
    private const int LargestWhole = 1_000_000_000;
    private const decimal LargestAmount = 1_000_000_000_000_000m;

    private static readonly DateOnly FirstDay = new(1900, 1, 1);
    private static readonly DateOnly LastDay = new(2199, 12, 31);
    private static readonly object Bound = new();
    private static readonly ConcurrentDictionary<Type, IReadOnlyList<Field>> Fields = new();

    /// <summary>Whether a handler has begun with a request; before that, whatever fails is the fault of the request.</summary>
    public static bool IsBound(HttpContext context) => context.Items.ContainsKey(Bound);

    /// <summary>The filter that all endpoints go through.</summary>
    public static EndpointFilterDelegate Filter(EndpointFilterFactoryContext endpoint, EndpointFilterDelegate next)
    {
        var services = endpoint.ApplicationServices.GetRequiredService<IServiceProviderIsService>();
        var nullability = new NullabilityInfoContext();
        var given = endpoint
            .MethodInfo.GetParameters()
            .Index()
            .Where(p => IsGiven(p.Item.ParameterType, services))
            .Select(p =>
                (
                    p.Index,
                    Of: new Field(
                        p.Item.Name ?? "",
                        IsBody(p.Item.ParameterType) ? LongestText : LongestInAddress,
                        nullability.Create(p.Item),
                        _ => null,
                        []
                    )
                )
            )
            .ToList();
        return context =>
        {
            foreach (var (index, field) in given)
            {
                Check(context.Arguments[index], field, IsBody(field.Type) ? "" : field.Name, 0);
            }

            context.HttpContext.Items[Bound] = true;
            return next(context);
        };
    }

    /// <summary>Checks what was read out of a file, as the body of a request is.</summary>
    /// <exception cref="ProblemException">Something in it cannot be used.</exception>
    public static void Check<T>(T value)
        where T : class => Check(value, new Field("", LongestText, null, _ => null, []) { Of = typeof(T) }, "", 0);

    private static bool IsBody(Type type) => type.Namespace?.StartsWith("Rendal", StringComparison.Ordinal) == true && !type.IsEnum;

    /// <summary>Whether a parameter comes out of the request, and is not put there by the application.</summary>
    private static bool IsGiven(Type type, IServiceProviderIsService services) =>
        !services.IsService(type)
        && type.GetMethod("BindAsync", BindingFlags.Public | BindingFlags.Static) is null
        && !typeof(HttpContext).IsAssignableFrom(type)
        && type != typeof(CancellationToken)
        && type != typeof(System.Security.Claims.ClaimsPrincipal)
        && !typeof(IFormFile).IsAssignableFrom(type)
        && !typeof(IFormFileCollection).IsAssignableFrom(type);

    private static void Check(object? value, Field field, string place, int level)
    {
        if (level > MostLevels)
        {
            throw Refused(place, $"is nested more than {MostLevels} levels deep");
        }

        if (value is null)
        {
            if (field.MustBe)
            {
                throw Refused(place, "is missing");
            }

            return;
        }

        foreach (var rule in field.Rules.Where(r => !r.IsValid(value)))
        {
            throw Refused(place, Words(rule, value));
        }

        switch (value)
        {
            case string text:
                CheckText(text, field.Rules.OfType<StringLengthAttribute>().FirstOrDefault()?.MaximumLength ?? field.LongestText, place);
                break;
            case Enum named when !Enum.IsDefined(named.GetType(), named):
                throw Refused(place, $"has no value {Convert.ToInt64(named, CultureInfo.InvariantCulture)}");
            case int whole when Math.Abs((long)whole) > LargestWhole:
                throw Refused(place, $"is beyond {LargestWhole}");
            case decimal amount when Math.Abs(amount) > LargestAmount:
                throw Refused(place, $"is beyond {LargestAmount:0}");
            case DateOnly day when day < FirstDay || day > LastDay:
                throw Refused(place, $"is not between {FirstDay:yyyy-MM-dd} and {LastDay:yyyy-MM-dd}");
            case byte[]:
                break;
            case IDictionary map:
                CheckMap(map, field, place, level);
                break;
            case IEnumerable list:
                CheckList(list, field, place, level);
                break;
            default:
                foreach (var of in IsBody(value.GetType()) ? Fields.GetOrAdd(value.GetType(), FieldsOf) : [])
                {
                    Check(of.Read(value), of, place.Length == 0 ? of.Name : $"{place}.{of.Name}", level + 1);
                }

                break;
        }
    }

    private static void CheckText(string text, int longest, string place)
    {
        if (text.Length > longest)
        {
            throw Refused(place, $"has {text.Length} characters; {longest} are the most");
        }

        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] == '\0')
            {
                throw Refused(place, $"has a character at {i + 1} that cannot be kept (U+0000)");
            }

            if (char.IsSurrogate(text[i]) && !(char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[++i])))
            {
                throw Refused(place, $"has half a character at {i + 1}");
            }
        }
    }

    private static void CheckList(IEnumerable list, Field field, string place, int level)
    {
        var of = field.Element(0);
        var count = 0;
        foreach (var element in list)
        {
            if (++count > MostElements)
            {
                throw Refused(place, $"has more than {MostElements} entries");
            }

            Check(element, of, $"{place}[{count}]", level + 1);
        }
    }

    private static void CheckMap(IDictionary map, Field field, string place, int level)
    {
        var of = field.Element(1);
        foreach (DictionaryEntry entry in map)
        {
            if (entry.Key is string key)
            {
                CheckText(key, LongestText, $"a name in {place}");
            }

            Check(entry.Value, of, $"{place}[{entry.Key}]", level + 1);
        }
    }

    private static IReadOnlyList<Field> FieldsOf(Type type)
    {
        var nullability = new NullabilityInfoContext();
        return
        [
            .. type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                .Where(p => p.GetIndexParameters().Length == 0 && p.CanRead && (p.CanWrite || IsGivenTo(type, p)))
                .Select(p => new Field(
                    JsonNamingPolicy.CamelCase.ConvertName(p.Name),
                    LongestText,
                    nullability.Create(p),
                    p.GetValue,
                    [.. p.GetCustomAttributes<ValidationAttribute>()]
                )),
        ];
    }

    /// <summary>Whether a property is filled by the constructor; one that is worked out from others is looked at with those.</summary>
    private static bool IsGivenTo(Type type, PropertyInfo property) =>
        type.GetConstructors()
            .Any(c => c.GetParameters().Any(p => string.Equals(p.Name, property.Name, StringComparison.OrdinalIgnoreCase)));

    private static string Words(ValidationAttribute rule, object value) =>
        rule switch
        {
            RangeAttribute range => string.Create(CultureInfo.InvariantCulture, $"is {value}; it is {range.Minimum} to {range.Maximum}"),
            StringLengthAttribute length => $"has {((string)value).Length} characters; {length.MaximumLength} are the most",
            MaxLengthAttribute most => $"has more than {most.Length} entries",
            _ => "cannot be used",
        };

    private static ProblemException Refused(string place, string why) =>
        ProblemException.Invalid($"{(place.Length == 0 ? "The request" : $"The field “{place}”")} {why}.");

    /// <summary>A place in a request, and what may stand there.</summary>
    private sealed record Field(
        string Name,
        int LongestText,
        NullabilityInfo? Nullability,
        Func<object, object?> Read,
        IReadOnlyList<ValidationAttribute> Rules
    )
    {
        /// <summary>The type of the elements where it is one of a list; null otherwise.</summary>
        public Type? Of { get; init; }

        /// <summary>The type of its value.</summary>
        public Type Type => Of ?? Nullability?.Type ?? typeof(object);

        /// <summary>Whether it must not be null.</summary>
        public bool MustBe => Nullability is { ReadState: NullabilityState.NotNull } && Of is null;

        /// <summary>What may stand in a list, or under a name of a map.</summary>
        public Field Element(int argument)
        {
            var of = Nullability switch
            {
                { ElementType: { } element } => element,
                { GenericTypeArguments: { Length: > 0 } arguments } => arguments[Math.Min(argument, arguments.Length - 1)],
                _ => null,
            };
            return new Field("", LongestText, of, _ => null, []);
        }
    }
}
