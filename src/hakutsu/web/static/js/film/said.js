/** What the station says back: a line of news, a fault at the field, or a question with its answers. */

import { find } from "../dom.js";

export class Said {
  /** @param {HTMLElement} news @param {HTMLElement} question */
  constructor(news, question) {
    this.news = news;
    this.question = question;
  }

  /** @param {string} words @param {[string, () => void]} [offer] one thing that can be done about it */
  say(words, offer) {
    this.news.className = "mt-1 min-h-6 text-soft";
    this.news.textContent = words;
    if (offer) this.news.append(" ", this.button(offer, "underline min-h-11 px-2"));
  }

  /** @param {string} words */
  fault(words) {
    this.news.className = "mt-1 min-h-6 font-bold text-needs";
    this.news.textContent = words;
  }

  /** @param {string} words @param {[string, () => void][]} answers */
  ask(words, answers) {
    this.question.hidden = false;
    find("[data-question-words]", HTMLElement, this.question).textContent = words;
    const place = find("[data-question-answers]", HTMLElement, this.question);
    place.replaceChildren(...answers.map((answer) => this.button(answer, "button")));
  }

  /** Close an open question. */
  leave() {
    this.question.hidden = true;
  }

  /** @param {[string, () => void]} offer @param {string} look */
  button([words, action], look) {
    const button = document.createElement("button");
    button.type = "button";
    button.className = look;
    button.textContent = words;
    button.addEventListener("click", () => {
      this.leave();
      action();
    });
    return button;
  }
}
