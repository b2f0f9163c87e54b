using System.Net;
using System.Net.Http.Json;
using System.Net.ServerSentEvents;

namespace Fehler.Web.Tests;

/// <summary>What other screens record is heard as it is recorded, in the format of server-sent events (WHATWG HTML, chapter 9.2).</summary>
public sealed class JobEventsTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task An_entry_is_heard_by_every_screen_that_looks_at_its_job()
    {
        var (job, other) = (await Host.OpenJobAsync(_client, "IN-101"), await Host.OpenJobAsync(_client, "LD-102"));
        await using var first = await Listen(job);
        await using var second = await Listen(job);
        await using var elsewhere = await Listen(other);
        (await Next(first), await Next(second), await Next(elsewhere)).ShouldBe((1, 1, 1));
        await Note(job);
        (await Next(first, heard: 1), await Next(second, heard: 1)).ShouldBe((2, 2));
        // A sign of life only repeats what was heard before: this was the entry itself.
        (await Next(elsewhere)).ShouldBe(1);
    }

    [Fact]
    public async Task Who_comes_later_hears_how_far_it_is()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        await Note(job);
        await Note(job);
        await using var late = await Listen(job);
        (await Next(late)).ShouldBe(3);
    }

    [Fact]
    public async Task There_is_nothing_to_hear_of_a_job_that_is_not_there() =>
        (await _client.GetAsync($"/api/jobs/{Guid.NewGuid()}/events", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.NotFound);

    private async Task<IAsyncEnumerator<SseItem<string>>> Listen(string job)
    {
        var answer = await _client.GetAsync($"/api/jobs/{job}/events", HttpCompletionOption.ResponseHeadersRead, Host.Cancellation);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("text/event-stream");
        var stream = await answer.Content.ReadAsStreamAsync(Host.Cancellation);
        return SseParser.Create(stream).EnumerateAsync(Host.Cancellation).GetAsyncEnumerator(Host.Cancellation);
    }

    /// <summary>What is heard next; a sign of life that repeats what was heard is passed over.</summary>
    private static async Task<int> Next(IAsyncEnumerator<SseItem<string>> events, int heard = 0)
    {
        int entries;
        do
        {
            (await events.MoveNextAsync()).ShouldBeTrue();
            entries = int.Parse(events.Current.Data, System.Globalization.CultureInfo.InvariantCulture);
        } while (entries == heard);
        return entries;
    }

    private async Task Note(string job) =>
        (
            await _client.PostAsJsonAsync($"/api/jobs/{job}/entries", new { type = "note", text = "warm cabinet" }, Host.Cancellation)
        ).EnsureSuccessStatusCode();
}
