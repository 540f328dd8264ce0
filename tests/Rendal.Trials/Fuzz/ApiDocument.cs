using System.Text.Json;

namespace Rendal.Trials.Fuzz;

/// <summary>One request that the API takes.</summary>
/// <param name="Method">The HTTP method.</param>
/// <param name="Path">The path, its parameters in braces.</param>
/// <param name="Parameters">The parameters in path and query.</param>
/// <param name="Body">The schema of a JSON body; null where there is none.</param>
/// <param name="HasFile">Whether it takes a form with a file.</param>
internal sealed record ApiOperation(string Method, string Path, IReadOnlyList<ApiParameter> Parameters, JsonElement? Body, bool HasFile)
{
    public override string ToString() => $"{Method} {Path}";
}

/// <summary>A parameter in the path or in the query.</summary>
internal sealed record ApiParameter(string Name, bool InPath, JsonElement Schema);

/// <summary>The OpenAPI document that the build writes.</summary>
internal sealed class ApiDocument
{
    private static readonly string[] Methods = ["get", "post", "put", "delete", "patch"];

    private readonly JsonElement root;

    private ApiDocument(JsonElement root) => this.root = root;

    public IReadOnlyList<ApiOperation> Operations =>
        [
            .. root.GetProperty("paths")
                .EnumerateObject()
                .SelectMany(path =>
                    path.Value.EnumerateObject().Where(o => Methods.Contains(o.Name)).Select(o => Operation(path.Name, o.Name, o.Value))
                ),
        ];

    /// <summary>Reads the document of the build that the program is part of.</summary>
    public static ApiDocument Read()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && folder.Name != "artifacts")
        {
            folder = folder.Parent;
        }

        var file = Path.Combine(
            folder?.FullName ?? throw new InvalidOperationException("The program does not lie in the folder that builds go to."),
            "openapi",
            "rendal.json"
        );
        return new ApiDocument(JsonDocument.Parse(File.ReadAllBytes(file)).RootElement);
    }

    /// <summary>A schema with its reference followed.</summary>
    public JsonElement Resolve(JsonElement schema)
    {
        while (schema.TryGetProperty("$ref", out var reference))
        {
            schema = root.GetProperty("components").GetProperty("schemas").GetProperty(reference.GetString()!.Split('/')[^1]);
        }

        return schema;
    }

    private static ApiOperation Operation(string path, string method, JsonElement operation)
    {
        var parameters = operation.TryGetProperty("parameters", out var given)
            ? given
                .EnumerateArray()
                .Select(p => new ApiParameter(
                    p.GetProperty("name").GetString()!,
                    p.GetProperty("in").GetString() == "path",
                    p.TryGetProperty("schema", out var s) ? s : default
                ))
                .ToList()
            : [];
        var content =
            operation.TryGetProperty("requestBody", out var body) && body.TryGetProperty("content", out var types)
                ? types
                : (JsonElement?)null;
        JsonElement? json =
            content is { } c && c.TryGetProperty("application/json", out var asJson) && asJson.TryGetProperty("schema", out var schema)
                ? schema
                : null;
        return new ApiOperation(
            method.ToUpperInvariant(),
            path,
            parameters,
            json,
            content is { } f && f.TryGetProperty("multipart/form-data", out _)
        );
    }
}
