"""Texts that lie over each other, and texts that are cut: every view of every tour of a running Omnifer, at four sizes.

bin/start --reset-demo            (in another terminal)
.venv/bin/python -m bench.overlaps [http://127.0.0.1:8470] [BUNDLE.json ...]

Bundles are brought first. Exits with 1 where anything is found.
"""

import sys
from collections.abc import Iterator, Sequence
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench.browser import launch

VIEWS = ("road", "rig", "kit", "load", "stores", "ready", "pack", "diary", "debrief")
SIZES = ((1280, 800), (1024, 768), (1920, 1080), (390, 844))
"""Width and height [px]: a laptop, a small tablet, a desk, a phone."""

MEASURE = """() => {
  const found = [], boxes = []
  const cut = (rect, by) => ({
    left: Math.max(rect.left, by.left), right: Math.min(rect.right, by.right),
    top: Math.max(rect.top, by.top), bottom: Math.min(rect.bottom, by.bottom),
  })
  const screen = { left: 0, top: 0, right: innerWidth, bottom: innerHeight }
  const clips = new Map()
  // What can be seen of what lies in an element, by its own edge and those around it.
  const clip = (el) => {
    if (!el || el === document.documentElement) return screen
    if (clips.has(el)) return clips.get(el)
    const style = getComputedStyle(el)
    const around = style.position === 'fixed' ? screen : clip(el.parentElement)
    const own = style.overflow === 'visible' || el instanceof SVGElement && !(el instanceof SVGSVGElement)
      ? around : cut(el.getBoundingClientRect(), around)
    clips.set(el, own)
    return own
  }
  // What lies over an element and hides it: opaque, and no kin of it.
  const hidden = (el, x, y) => {
    for (const top of document.elementsFromPoint(x, y)) {
      if (top === el || top.contains(el) || el.contains(top)) return false
      const { backgroundColor, position } = getComputedStyle(top)
      if (top instanceof HTMLElement && !/, 0\\)$|transparent/.test(backgroundColor)) return true
    }
    return false
  }
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  const range = document.createRange()
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const el = node.parentElement
    if (!node.data.trim() || el.closest('.unseen, script, style, title, desc, option, defs')) continue
    if (!el.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue
    range.selectNodeContents(node)
    const style = getComputedStyle(el)
    const drawn = parseFloat(style.fontSize)
    for (const rect of range.getClientRects()) {
      // Of a line's box the letters take the middle: a capital is some 0.7 of the size of the type.
      const middle = (rect.top + rect.bottom) / 2, half = Math.min(drawn, rect.height) * 0.34
      const ink = { left: rect.left + 1, right: rect.right - 1, top: middle - half, bottom: middle + half }
      const seen = cut(ink, clip(el))
      if (seen.right - seen.left < 2 || seen.bottom - seen.top < 2) continue
      if (hidden(el, (seen.left + seen.right) / 2, (seen.top + seen.bottom) / 2)) continue
      boxes.push({ node, ...seen, text: node.data.trim().slice(0, 40) })
      const edge = (() => { for (let at = el; at; at = at.parentElement) {
        const s = getComputedStyle(at)
        if (s.textOverflow === 'ellipsis' || ['auto', 'scroll'].includes(s.overflowX)) return null
        const inner = at instanceof SVGElement && !(at instanceof SVGSVGElement)
        if (s.overflowX !== 'visible' && !inner) return at.getBoundingClientRect()
      } return screen })()
      if (edge && (ink.left < edge.left - 2 || ink.right > edge.right + 2)) found.push('cut: ' + node.data.trim().slice(0, 60))
    }
  }
  boxes.sort((a, b) => a.left - b.left)
  for (let i = 0; i < boxes.length; i++)
    for (let j = i + 1; j < boxes.length && boxes[j].left < boxes[i].right - 1; j++) {
      const [a, b] = [boxes[i], boxes[j]]
      const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left)
      const tall = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
      // A text cut by an ellipsis has two boxes of its own.
      const apart = a.node === b.node || wide <= 1.5 || tall <= 1.5
      if (!apart) found.push(`over: "${a.text}" and "${b.text}" at ${Math.round(b.left)}, ${Math.round(b.top)}`)
    }
  const wide = document.documentElement.scrollWidth - innerWidth
  if (wide > 0) found.push(`the page is ${wide} px wider than the window`)
  return [...new Set(found)]
}"""


def overlaps(page: Page) -> list[str]:
    """What lies over another text, or is cut, on the page as it stands; empty where nothing is."""
    return page.evaluate(MEASURE)


def walked(page: Page, address: str, tour: str, views: Sequence[str] = VIEWS, sizes: Sequence = SIZES) -> Iterator[str]:
    """What is found on each view of a tour at each size, a line each."""
    for view in views:
        page.goto(f"{address}/tours/{tour}/{view}")
        page.get_by_role("heading", level=1).wait_for(state="attached")
        page.wait_for_load_state("networkidle")
        for width, height in sizes:
            page.set_viewport_size({"width": width, "height": height})
            page.evaluate(
                "() => document.fonts.ready.then(() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))))"
            )
            for one in overlaps(page):
                yield f"{view} {width}x{height}: {one}"


def main() -> int:
    """Walk through all tours and tell what is found."""
    address = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8470"
    found = 0
    with sync_playwright() as playwright:
        browser = launch(playwright)
        page = browser.new_context(locale="en-GB", service_workers="block").new_page()
        page.goto(address)
        token = page.request.get(f"{address}/api/session").json()["csrf_token"]
        for bundle in map(Path, sys.argv[2:]):
            file = {"name": bundle.name, "mimeType": "application/json", "buffer": bundle.read_bytes()}
            page.request.post(f"{address}/api/tours/bundle", multipart={"file": file}, headers={"X-CSRFToken": token})
        for tour in page.request.get(f"{address}/api/tours").json()["tours"]:
            for line in walked(page, address, tour["id"]):
                print(f"{tour['name']}: {line}")
                found += 1
        browser.close()
    print(f"{found} found")
    return int(found > 0)


if __name__ == "__main__":
    sys.exit(main())
