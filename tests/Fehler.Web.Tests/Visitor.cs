using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Web.People;
using Microsoft.AspNetCore.Mvc.Testing.Handlers;
using Microsoft.Extensions.DependencyInjection;

namespace Fehler.Web.Tests;

/// <summary>An installation with the demo's circuits where people sign in.</summary>
public class ClosedHost : Host
{
    public const string Administrator = "Ada Hollmann",
        Word = "four wet planks in a row";

    protected override bool IsDemo => false;

    protected override void ConfigureWebHost(Microsoft.AspNetCore.Hosting.IWebHostBuilder builder)
    {
        base.ConfigureWebHost(builder);
        builder.UseSetting("Fehler:SignInsPerMinute", "1000");
        builder.UseSetting("Fehler:BackupFolder", "none");
    }

    public string Code => Services.GetRequiredService<FirstStart>().Code;

    /// <summary>The administrator, signed in; made when there is none yet.</summary>
    public async Task<Visitor> AdministratorAsync()
    {
        var visitor = new Visitor(this);
        if ((await visitor.SessionAsync()).GetProperty("state").GetString() == "first")
        {
            (
                await visitor.PostAsync(
                    "/api/session/first",
                    new
                    {
                        code = Code,
                        name = Administrator,
                        password = Word,
                    }
                )
            ).EnsureSuccessStatusCode();
            await visitor.SessionAsync();
        }
        else
        {
            await visitor.SignInAsync(Administrator, Word);
        }

        return visitor;
    }

    /// <summary>Somebody with rights, added and signed in; the name is their own.</summary>
    public async Task<Visitor> PersonAsync(string name, bool needsSecond = false, params string[] rights)
    {
        var admin = await AdministratorAsync();
        (
            await admin.PostAsync(
                "/api/people",
                new
                {
                    name,
                    password = Word,
                    rights,
                    needsSecond,
                }
            )
        ).EnsureSuccessStatusCode();
        var visitor = new Visitor(this);
        await visitor.SignInAsync(name, Word);
        return visitor;
    }
}

/// <summary>A browser: keeps cookies, and sends back the token that other sites cannot read.</summary>
public sealed class Visitor : IDisposable
{
    private readonly CookieContainer _cookies = new();

    public Visitor(Host host)
    {
        Http = host.CreateDefaultClient(new CookieContainerHandler(_cookies));
        Http.DefaultRequestHeaders.Add("Sec-Fetch-Site", "same-origin");
    }

    public HttpClient Http { get; }

    public string? Cookie(string name) => _cookies.GetCookies(Http.BaseAddress!)[name]?.Value;

    public void SetCookie(string name, string value) => _cookies.Add(Http.BaseAddress!, new Cookie(name, value));

    public async Task<JsonElement> SessionAsync()
    {
        var session = await Http.GetFromJsonAsync<JsonElement>("/api/session", Host.Cancellation);
        Http.DefaultRequestHeaders.Remove("X-XSRF-TOKEN");
        Http.DefaultRequestHeaders.Add("X-XSRF-TOKEN", Uri.UnescapeDataString(Cookie("XSRF-TOKEN")!));
        return session;
    }

    public async Task SignInAsync(string name, string password)
    {
        await SessionAsync();
        (await PostAsync("/api/session", new { name, password })).EnsureSuccessStatusCode();
        await SessionAsync();
    }

    public Task<HttpResponseMessage> PostAsync(string path, object body) => Http.PostAsJsonAsync(path, body, Host.Cancellation);

    public Task<HttpResponseMessage> PutAsync(string path, object body) => Http.PutAsJsonAsync(path, body, Host.Cancellation);

    public Task<HttpResponseMessage> DeleteAsync(string path) => Http.DeleteAsync(new Uri(path, UriKind.Relative), Host.Cancellation);

    public async Task<HttpStatusCode> StatusAsync(string path) =>
        (await Http.GetAsync(new Uri(path, UriKind.Relative), Host.Cancellation)).StatusCode;

    public Task<JsonElement> GetAsync(string path) => Http.GetFromJsonAsync<JsonElement>(path, Host.Cancellation);

    public void Dispose() => Http.Dispose();
}
