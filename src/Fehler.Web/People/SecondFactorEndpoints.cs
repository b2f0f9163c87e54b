using System.Net.Mime;
using System.Text;
using Fehler.Data;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using QRCoder;

namespace Fehler.Web.People;

/// <summary>One's own password.</summary>
public sealed record OwnPassword(string? Password);

/// <summary>A one-time code.</summary>
public sealed record GivenCode(string? Code);

/// <summary>What an authenticator is told while one-time codes are being set up.</summary>
/// <param name="Key">The key, to be typed.</param>
/// <param name="Picture">The same as a QR code: the source of an image.</param>
public sealed record KeyView(string Key, string Picture);

/// <summary>Spare codes, each of which lets its owner in once; shown this once.</summary>
public sealed record SpareCodesView(IReadOnlyList<string> Codes);

/// <summary>One-time codes beside one's own password: set up, put in force, turned off.</summary>
internal static class SecondFactorEndpoints
{
    private const int PixelsPerModule = 5;

    public static void MapSecondFactor(this IEndpointRouteBuilder routes)
    {
        var codes = routes.MapGroup("/api/session/codes").WithTags("People").RequireRateLimiting(RateLimits.SignIn).Needs(Rights.None);
        codes
            .MapPost("", Begin)
            .WithName("beginCodes")
            .WithSummary("A new key for an authenticator; in force once a code of it was given")
            .Accepts<OwnPassword>(MediaTypeNames.Application.Json)
            .ProducesProblem(422);
        codes
            .MapPut("", Confirm)
            .WithName("confirmCodes")
            .WithSummary("Puts one-time codes in force with a first one; the answer holds the spare codes")
            .Accepts<GivenCode>(MediaTypeNames.Application.Json)
            .ProducesProblem(422);
        codes
            .MapPost("off", End)
            .WithName("endCodes")
            .WithSummary("Goes back to the password alone")
            .Accepts<OwnPassword>(MediaTypeNames.Application.Json)
            .ProducesProblem(422);
    }

    private static async Task<KeyView> Begin(
        Body<OwnPassword> body,
        Caller caller,
        PeopleStore people,
        SecondFactor second,
        CancellationToken cancellation
    )
    {
        var key = await second.BeginAsync(
            await SessionEndpoints.Own(caller, people, cancellation),
            body.Value.Password ?? "",
            caller.From,
            cancellation
        );
        using var picture = new SvgQRCode(QRCodeGenerator.GenerateQrCode(key.Address, QRCodeGenerator.ECCLevel.M));
        var svg = Convert.ToBase64String(Encoding.UTF8.GetBytes(picture.GetGraphic(PixelsPerModule)));
        return new KeyView(key.Key, $"data:image/svg+xml;base64,{svg}");
    }

    private static async Task<SpareCodesView> Confirm(
        Body<GivenCode> body,
        Caller caller,
        PeopleStore people,
        SecondFactor second,
        CancellationToken cancellation
    ) =>
        new(
            await second.ConfirmAsync(
                await SessionEndpoints.Own(caller, people, cancellation),
                body.Value.Code ?? "",
                caller.From,
                cancellation
            )
        );

    private static async Task<NoContent> End(
        Body<OwnPassword> body,
        Caller caller,
        PeopleStore people,
        SecondFactor second,
        CancellationToken cancellation
    )
    {
        await second.EndAsync(
            await SessionEndpoints.Own(caller, people, cancellation),
            body.Value.Password ?? "",
            caller.From,
            cancellation
        );
        return TypedResults.NoContent();
    }
}
