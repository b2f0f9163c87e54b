using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Data;

namespace Fehler.Web.Tests;

/// <summary>Photos of a job: kept, shown, printed and carried along.</summary>
public class PhotoTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    /// <summary>One point, as ISO/IEC 15948 has it.</summary>
    private static readonly byte[] Png = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg=="
    );

    /// <summary>The head of a JPEG of 640 by 480 points (ITU-T T.81: application segment, then a frame).</summary>
    private static readonly byte[] JpegHead =
    [
        0xFF,
        0xD8,
        0xFF,
        0xE0,
        0x00,
        0x04,
        0x00,
        0x00,
        0xFF,
        0xC0,
        0x00,
        0x11,
        0x08,
        0x01,
        0xE0,
        0x02,
        0x80,
        0x03,
        0x00,
        0x00,
    ];

    [Fact]
    public void A_picture_says_itself_what_it_is()
    {
        PictureFormat.Of(Png).ShouldBe(new PictureFormat("image/png", 1, 1));
        PictureFormat.Of(JpegHead).ShouldBe(new PictureFormat("image/jpeg", 640, 480));
        Should.Throw<RefusedException>(() => PictureFormat.Of("<svg onload=alert(1)>"u8)).Message.ShouldContain("no JPEG or PNG");
        Should.Throw<RefusedException>(() => PictureFormat.Of(JpegHead.AsSpan(0, 12))).Message.ShouldContain("damaged");
        Should.Throw<RefusedException>(() => PictureFormat.Of(new byte[PictureFormat.MostBytes + 1])).Message.ShouldContain("2 MB");
        var huge = (byte[])Png.Clone();
        huge[16] = 0x7F;
        Should.Throw<RefusedException>(() => PictureFormat.Of(huge)).Message.ShouldContain("pixels");
    }

    [Fact]
    public async Task A_photo_is_in_the_journal_the_report_the_PDF_and_the_bundle()
    {
        var job = await Host.OpenJobAsync(_client, "LD-102");
        (await Sent(job, Png, "burnt terminal")).EnsureSuccessStatusCode();
        var entry = (await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation))
            .GetProperty("entries")
            .EnumerateArray()
            .Last();
        entry.GetProperty("text").GetString().ShouldBe("Photo: burnt terminal");
        var picture = entry.GetProperty("entry").GetProperty("picture").GetString();
        var read = await _client.GetAsync($"/api/photos/{picture}", Host.Cancellation);
        read.Content.Headers.ContentType!.MediaType.ShouldBe("image/png");
        (await read.Content.ReadAsByteArrayAsync(Host.Cancellation)).ShouldBe(Png);

        var report = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}/report", Host.Cancellation);
        report
            .GetProperty("story")
            .GetProperty("chapters")
            .EnumerateArray()
            .SelectMany(c => c.GetProperty("lines").EnumerateArray())
            .ShouldContain(l => l.GetProperty("picture").GetString() == picture && l.GetProperty("text").GetString() == "burnt terminal");
        var pdf = await _client.GetByteArrayAsync($"/api/jobs/{job}/report.pdf", Host.Cancellation);
        Encoding.Latin1.GetString(pdf).ShouldContain("/Subtype/Image");

        var circuit = await Host.CircuitAsync(_client, "LD-102");
        var bundle = await _client.GetByteArrayAsync($"/api/bundle?circuit={circuit}", Host.Cancellation);
        await using var otherHost = new Host();
        using var other = otherHost.CreateClient();
        using var zip = new ByteArrayContent(bundle);
        zip.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        (await other.PostAsync("/api/bundle", zip, Host.Cancellation)).EnsureSuccessStatusCode();
        (await other.GetByteArrayAsync($"/api/photos/{picture}", Host.Cancellation)).ShouldBe(Png);
    }

    [Fact]
    public async Task What_is_no_picture_of_this_job_is_refused_and_nothing_is_kept()
    {
        var job = await Host.OpenJobAsync(_client, "WP-304");
        var text = await Sent(job, "GIF89a"u8.ToArray(), "");
        text.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await text.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("no JPEG or PNG");
        (await Sent(Guid.NewGuid().ToString(), Png, "")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await Sent(job, Png, new string('x', 1000))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var alone = await _client.PostAsJsonAsync(
            $"/api/jobs/{job}/entries",
            new
            {
                type = "photo",
                picture = Guid.NewGuid(),
                caption = "from nowhere",
            },
            Host.Cancellation
        );
        alone.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await _client.GetAsync($"/api/photos/{Guid.NewGuid()}", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await _client.GetFromJsonAsync<int>($"/api/jobs/{job}/sequence", Host.Cancellation)).ShouldBe(1);
    }

    [Fact]
    public async Task A_photo_that_is_sent_again_after_a_lost_answer_is_kept_once()
    {
        var job = await Host.OpenJobAsync(_client, "WP-304");
        var picture = Guid.NewGuid();
        (await Put(job, picture, Png)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Put(job, picture, Png)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var other = (byte[])Png.Clone();
        other[^1] ^= 1;
        var changed = await Put(job, picture, other);
        changed.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await changed.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("Another photo has this id already");
        var elsewhere = await Host.OpenJobAsync(_client, "LD-102");
        (await Put(elsewhere, picture, Png)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var entry = new
        {
            type = "photo",
            id = Guid.NewGuid(),
            picture,
            caption = "once",
        };
        for (var time = 0; time < 2; time++)
        {
            (await _client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Host.Cancellation)).EnsureSuccessStatusCode();
        }

        (await _client.GetFromJsonAsync<int>($"/api/jobs/{job}/sequence", Host.Cancellation)).ShouldBe(2);
    }

    /// <summary>The picture, and then its entry.</summary>
    private async Task<HttpResponseMessage> Sent(string job, byte[] bytes, string caption)
    {
        var picture = Guid.NewGuid();
        var kept = await Put(job, picture, bytes);
        return kept.IsSuccessStatusCode
            ? await _client.PostAsJsonAsync(
                $"/api/jobs/{job}/entries",
                new
                {
                    type = "photo",
                    picture,
                    caption,
                },
                Host.Cancellation
            )
            : kept;
    }

    private async Task<HttpResponseMessage> Put(string job, Guid picture, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new MediaTypeHeaderValue("image/png");
        return await _client.PutAsync($"/api/jobs/{job}/photos/{picture}", content, Host.Cancellation);
    }
}
