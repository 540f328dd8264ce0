using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Rendal.Trials.Fuzz;

/// <summary>Makes bodies that fit a schema, mostly, and breaks one or a few places of them.</summary>
internal sealed class BodyMaker(ApiDocument document, FitBodies fit, OddValues odd, Func<string, long> number, Random random)
{
    private const int MostLevels = 6;

    /// <summary>A body as JSON text.</summary>
    public string Make(ApiOperation operation)
    {
        var known = random.Next(4) > 0 ? fit.For(operation) : null;
        var body = known ?? Of(operation.Body!.Value, "", 0);
        for (var breaks = known is null ? random.Next(3) : Math.Max(0, random.Next(5) - 2); breaks > 0; breaks--)
        {
            body = Break(body);
        }

        var text = body?.ToJsonString() ?? "null";
        return random.Next(100) switch
        {
            0 => text[..random.Next(text.Length)],
            1 => text.Replace("\"", "'", StringComparison.Ordinal),
            2 => text.Replace(":\"", ":\"\\uD800", StringComparison.Ordinal),
            3 => "\u0001" + text,
            4 => "",
            _ => text,
        };
    }

    private JsonNode? Of(JsonElement given, string name, int level)
    {
        var schema = document.Resolve(given);
        if (schema.TryGetProperty("oneOf", out var choices) || schema.TryGetProperty("anyOf", out choices))
        {
            var all = choices.EnumerateArray().ToList();
            return Of(all[random.Next(all.Count)], name, level);
        }

        if (schema.TryGetProperty("enum", out var words))
        {
            var all = words.EnumerateArray().Where(w => w.ValueKind == JsonValueKind.String).ToList();
            return random.Next(15) == 0 ? odd.Any() : JsonValue.Create(all[random.Next(all.Count)].GetString());
        }

        return TypeOf(schema) switch
        {
            "object" => Map(schema, level),
            "array" => new JsonArray([
                .. Enumerable
                    .Range(0, level > MostLevels ? 0 : random.Next(4))
                    .Select(_ => Of(schema.GetProperty("items"), name, level + 1)),
            ]),
            "integer" => JsonValue.Create(
                random.Next(4) == 0 ? odd.Whole()
                : name.EndsWith("Id", StringComparison.OrdinalIgnoreCase) ? number(name[..^2] + "s")
                : name is "intake" ? number("intakes")
                : name is "parcels" ? number(name)
                : random.Next(0, 100)
            ),
            "number" => random.Next(3) == 0 ? Number(odd.Number()) : JsonValue.Create(random.Next(0, 10_000) / 100m),
            "boolean" => JsonValue.Create(random.Next(2) == 0),
            "null" => null,
            "string" => JsonValue.Create(Text(schema, name)),
            _ => odd.Any(),
        };
    }

    private string Text(JsonElement schema, string name)
    {
        if (name.Equals("host", StringComparison.OrdinalIgnoreCase))
        {
            return odd.Host();
        }

        return schema.TryGetProperty("format", out var format) && format.GetString() is "date" or "date-time" && random.Next(3) > 0
                ? odd.Date()
            : random.Next(2) == 0 ? odd.Text()
            : name switch
            {
                "customer" or "with" or "headOffice" => "AB01",
                "language" => "en",
                "currency" => "GBP",
                "subject" => "Statement of <span data-slot=\"customer.name\"></span>",
                "body" => "<p>Dear <span data-slot=\"customer.name\"></span></p>",
                "address" => "a@inn.example",
                "timeZone" => "Europe/London",
                "security" => "none",
                _ => "word",
            };
    }

    private JsonObject Map(JsonElement schema, int level)
    {
        var made = new JsonObject();
        if (schema.TryGetProperty("properties", out var properties))
        {
            foreach (var property in properties.EnumerateObject().Where(_ => level <= MostLevels))
            {
                made[property.Name] = Of(property.Value, property.Name, level + 1);
            }
        }

        if (schema.TryGetProperty("additionalProperties", out var more) && more.ValueKind == JsonValueKind.Object && level <= MostLevels)
        {
            for (var i = random.Next(3); i > 0; i--)
            {
                made[odd.Text() is { Length: < 100 } key ? key : "key"] = Of(more, "", level + 1);
            }
        }

        return made;
    }

    /// <summary>Puts something odd at one place of a body, or takes one away.</summary>
    private JsonNode? Break(JsonNode? body)
    {
        var places = new List<JsonNode>();
        Collect(body, places);
        if (places.Count == 0)
        {
            return odd.Any();
        }

        switch (places[random.Next(places.Count)])
        {
            case JsonObject { Count: > 0 } of:
                var name = of.ElementAt(random.Next(of.Count)).Key;
                if (random.Next(4) == 0)
                {
                    of.Remove(name);
                }
                else
                {
                    of[name] = name.Equals("host", StringComparison.OrdinalIgnoreCase)
                        ? JsonValue.Create(odd.Host())
                        : odd.Instead(of[name]);
                }

                break;
            case JsonArray list:
                list.Insert(random.Next(list.Count + 1), odd.Any());
                break;
        }

        return body;
    }

    private static void Collect(JsonNode? node, List<JsonNode> places)
    {
        if (node is JsonObject of)
        {
            places.Add(of);
            of.ToList().ForEach(p => Collect(p.Value, places));
        }
        else if (node is JsonArray list)
        {
            places.Add(list);
            list.ToList().ForEach(n => Collect(n, places));
        }
    }

    private static JsonNode? Number(string written)
    {
        try
        {
            return JsonNode.Parse(written);
        }
        catch (JsonException)
        {
            return JsonValue.Create(decimal.Parse("1", CultureInfo.InvariantCulture));
        }
    }

    private static string TypeOf(JsonElement schema)
    {
        if (!schema.TryGetProperty("type", out var type))
        {
            return schema.TryGetProperty("properties", out _) ? "object" : "string";
        }

        return type.ValueKind == JsonValueKind.Array
            ? type.EnumerateArray().Select(t => t.GetString()!).FirstOrDefault(t => t != "null") ?? "null"
            : type.GetString()!;
    }
}
