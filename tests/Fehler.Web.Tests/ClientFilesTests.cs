using System.Net.Http.Headers;
using System.Text.RegularExpressions;

namespace Fehler.Web.Tests;

/// <summary>What a browser fetches before it shows anything; caching as RFC 9111 has it, immutable as RFC 8246.</summary>
public partial class ClientFilesTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task The_page_is_asked_for_each_time_and_what_carries_its_hash_is_kept_for_good()
    {
        foreach (var page in new[] { "/", "/jobs/any", "/sums" })
        {
            (await Fetched(page)).CacheControl.ShouldBe("no-cache", page);
        }

        foreach (var file in await FirstFiles())
        {
            (await Fetched(file)).CacheControl.ShouldBe("public, max-age=31536000, immutable", file);
        }

        (await Fetched("/api/circuits")).CacheControl.ShouldBe("no-store");
    }

    /// <summary>200 kB: what a tablet on a weak plant network gets in a second or two.</summary>
    [Fact]
    public async Task The_first_page_and_what_it_names_go_over_the_wire_in_at_most_200_kilobytes()
    {
        var bytes = (await Fetched("/")).Bytes;
        foreach (var file in await FirstFiles())
        {
            var fetched = await Fetched(file);
            fetched.Encoding.ShouldBe("br", file);
            bytes += fetched.Bytes;
        }

        bytes.ShouldBeInRange(10_000, 200_000);
    }

    [Fact]
    public async Task Answers_of_the_interface_are_compressed_too() => (await Fetched("/api/circuits?take=50")).Encoding.ShouldBe("br");

    private async Task<IReadOnlyList<string>> FirstFiles()
    {
        var page = await _client.GetStringAsync("/", Host.Cancellation);
        var files = Named().Matches(page).Select(m => m.Groups["file"].Value).Distinct().ToList();
        files.ShouldNotBeEmpty();
        return files;
    }

    private async Task<(string CacheControl, string Encoding, int Bytes)> Fetched(string address)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, address);
        request.Headers.AcceptEncoding.Add(new StringWithQualityHeaderValue("br"));
        using var answer = await _client.SendAsync(request, Host.Cancellation);
        answer.EnsureSuccessStatusCode();
        return (
            answer.Headers.NonValidated.TryGetValues("Cache-Control", out var kept) ? kept.ToString() : "",
            string.Join(", ", answer.Content.Headers.ContentEncoding),
            (await answer.Content.ReadAsByteArrayAsync(Host.Cancellation)).Length
        );
    }

    [GeneratedRegex(@"(?:src|href)=""(?<file>/assets/[^""]+\.(?:js|css))""")]
    private static partial Regex Named();
}
