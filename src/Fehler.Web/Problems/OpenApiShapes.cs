using System.Reflection;
using Fehler.Core.Circuits;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Fehler.Web.Problems;

/// <summary>How the trade's types look in the OpenAPI document.</summary>
internal static class OpenApiShapes
{
    /// <summary>Whether this process only writes the document during a build.</summary>
    public static bool IsDocumentBuild => Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

    public static void Configure(OpenApiOptions options)
    {
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info = new OpenApiInfo
                {
                    Title = "Fehler",
                    Version = "1",
                    Description = "Diagnosis of installed motor starters: circuits, jobs, readings, suspects and next tests.",
                };
                document.Servers?.Clear();
                return Task.CompletedTask;
            }
        );
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                if (context.JsonTypeInfo.Type == typeof(TerminalId))
                {
                    schema.Type = JsonSchemaType.String;
                    schema.Description = "Terminal as written on the drawing, device:terminal, e.g. KM1:A1.";
                }

                // A converter of its own hides from the description that this is text.
                if (context.JsonTypeInfo.Type == typeof(string))
                {
                    schema.Type = context.JsonPropertyInfo is { IsGetNullable: true }
                        ? JsonSchemaType.String | JsonSchemaType.Null
                        : JsonSchemaType.String;
                }

                if (context.JsonTypeInfo.ElementType == typeof(string))
                {
                    (schema.Items as OpenApiSchema ?? (OpenApiSchema)(schema.Items = new OpenApiSchema())).Type = JsonSchemaType.String;
                }

                return Task.CompletedTask;
            }
        );
    }
}
