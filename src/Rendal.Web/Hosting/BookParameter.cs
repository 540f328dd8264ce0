using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Rendal.Web.Hosting;

/// <summary>
/// Names the book in the API document. Endpoints get it through their scope and not as a parameter of their own, so that the document
/// would lack it.
/// </summary>
internal sealed class BookParameter : IOpenApiOperationTransformer
{
    private const string Name = "book";

    public Task TransformAsync(OpenApiOperation operation, OpenApiOperationTransformerContext context, CancellationToken cancellationToken)
    {
        var isInRoute = context.Description.RelativePath?.Contains($"{{{Name}", StringComparison.Ordinal) ?? false;
        if (isInRoute && operation.Parameters?.Any(p => p.Name == Name) != true)
        {
            operation.Parameters ??= [];
            operation.Parameters.Insert(
                0,
                new OpenApiParameter
                {
                    Name = Name,
                    In = ParameterLocation.Path,
                    Required = true,
                    Schema = new OpenApiSchema { Type = JsonSchemaType.Integer, Format = "int64" },
                }
            );
        }

        return Task.CompletedTask;
    }
}
