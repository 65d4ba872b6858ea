import { Body, Controller, Get, HttpCode, Inject, Logger, Param, Post, Query, Req, Res } from '@nestjs/common';
import {
  ArrivalAccountRequest,
  ArrivalChoiceRequest,
  ArrivalCourseRequest,
  ArrivalMailRequest,
  type ArrivalView,
  type LtiProofView,
} from '@salt-circle/contracts';
import type { Request, Response } from 'express';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { arrivingIn, browserOf, setArriving, setSessionCookie } from '../../../auth/session-cookie.js';
import { LtiPlatform } from '../../../model/lti.js';
import { Clock } from '../../../platform/clock/clock.js';
import type { Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { Database } from '../../../platform/database/database.js';
import { Ids } from '../../../platform/ids/ids.js';
import {
  ARRIVAL_FAULTS,
  isArrivalFault,
  isItsDoing,
  type ArrivalFault,
} from '../../../platform/problems/lti-sentences.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { refusal } from '../../../platform/problems/sentences.js';
import { isEarlier } from '../../../platform/security/earlier-addresses.js';
import { networkOf } from '../../../platform/security/network.js';
import { FromElsewhere, Public } from '../../../platform/security/public.js';
import { ArrivalRefused } from './arrival-fault.js';
import { Arrivals, type Arrived, type At } from './arrivals.service.js';
import { LtiFault } from '../platforms/lti-fault.js';
import { choiceClaims } from './choosing.js';
import { LtiKeys } from '../platforms/keys.service.js';
import { EARLIER, LaunchService } from './launch.service.js';
import { sendPage } from './pages.js';
import { Proofs } from './proofs.service.js';
import { Registration } from '../platforms/registration.service.js';
import { say } from '../../../words/lti.js';

type Form = Readonly<Record<string, unknown>>;

/** From one address of the network come all students of a university; what is not believed is not kept without bound. */
const REFUSED = { points: 300, duration: 300 };
/** The same for those who are on their way: a large class that presses the link at once. */
const BEGUN = { points: 3_000, duration: 300 };
/** Seconds for which what is chosen can be handed back. */
const CHOICE_LASTS = 300;

/** Where platforms send browsers. What they bring is believed when it is signed, and belongs to the browser that brings it. */
@Public()
@Controller('lti')
export class LaunchController {
  readonly #logger = new Logger('platform');
  readonly #refused = new RateLimiterMemory(REFUSED);
  readonly #begun = new RateLimiterMemory(BEGUN);

  constructor(
    private readonly launches: LaunchService,
    private readonly arrivals: Arrivals,
    private readonly keys: LtiKeys,
    private readonly registration: Registration,
    private readonly ids: Ids,
    private readonly database: Database,
    private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** Our public keys, for platforms. */
  @Get('keys')
  shown(): Promise<{ keys: Array<Record<string, string>> }> {
    return this.keys.shown();
  }

  @Get('login')
  loginByAddress(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.#login(request, response, request.query);
  }

  @FromElsewhere()
  @Post('login')
  loginByForm(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.#login(request, response, formOf(request));
  }

  @FromElsewhere()
  @Post('launch')
  async launch(@Req() request: Request, @Res() response: Response): Promise<void> {
    await this.#orSay(request, response, async () => {
      const browser = arrivingIn(request.headers.cookie, this.settings);
      const found = await this.launches.launch(formOf(request), browser);
      if ('again' in found) {
        response.redirect(303, `/lti-window?${new URLSearchParams(found.again).toString()}`);
        return;
      }
      const framed = isFramed(request);
      const at = { token: browser ?? '', framed, userAgent: browserOf(request) };
      const { path, session } = await this.arrivals.arrive(found, at);
      if (session !== null) setSessionCookie(response, session, this.settings, framed);
      response.redirect(303, path);
    });
  }

  /** Why somebody did not come in, in words. */
  @Get('faults/:code')
  fault(@Param('code') code: string): { sentence: string; whatToDo: string } {
    if (!isArrivalFault(code)) throw refusal('unknown');
    const [sentence, whatToDo] = ARRIVAL_FAULTS[code]();
    return { sentence, whatToDo };
  }

  /** Opened in a window of the platform by whoever runs it. */
  @Get('register/:token')
  async register(
    @Param('token') token: string,
    @Query('openid_configuration') configuration: unknown,
    @Query('registration_token') given: unknown,
    @Res() response: Response,
  ): Promise<void> {
    if (typeof configuration !== 'string' || !URL.canParse(configuration)) {
      const words = [say('platformHasToOpenThis')];
      sendPage(response, { title: say('thisAddressIsForPlatform'), words }, 422);
      return;
    }
    try {
      const name = await this.registration.register(token, {
        configuration,
        token: typeof given === 'string' && given !== '' ? given : null,
      });
      sendPage(response, {
        title: say('isConnected', { name }),
        words: [say('saltCircleHasBeenRegistered')],
        // As LTI Dynamic Registration says that a window is closed.
        script: "(window.opener||window.parent).postMessage({subject:'org.imsglobal.lti.close'},'*')",
      });
    } catch (error) {
      const said =
        error instanceof LtiFault
          ? [error.sentence, say('nothingWasRegistered')]
          : error instanceof ProblemError
            ? [error.problem.sentence, error.problem.whatToDo]
            : null;
      if (said === null) throw error;
      sendPage(response, { title: say('platformWasNotConnected'), words: said }, 422);
    }
  }

  @Get('arrivals/:token/return')
  async giveBack(@Req() request: Request, @Param('token') token: string, @Res() response: Response): Promise<void> {
    const browser = arrivingIn(request.headers.cookie, this.settings);
    const { arrival, platform, exchange } = await this.arrivals.chosen({ token, browser, userAgent: '' });
    const { launch, chosen } = arrival;
    const ours = { launchUrl: this.launches.launchUrl, nonce: this.ids.token() };
    const claims = choiceClaims(platform, launch, { exchange, column: chosen?.column === true }, ours);
    const signed = await this.keys.sign(claims, CHOICE_LASTS);
    sendPage(response, {
      title: say('backTo', { name: platform.name }),
      words: [say('yourChoiceIsHandedOver')],
      form: { to: launch.choosing?.returnUrl ?? '', fields: { JWT: signed }, press: say('goBackNow') },
      script: "document.getElementById('on').submit()",
    });
  }

  async #login(request: Request, response: Response, form: Form): Promise<void> {
    await this.#orSay(request, response, async () => {
      await this.#begun.consume(networkOf(request.ip)).catch((refused: unknown) => {
        throw refused instanceof Error ? refused : new ArrivalRefused('too-many');
      });
      // One for all tabs that are on their way at once.
      const browser = arrivingIn(request.headers.cookie, this.settings) ?? this.ids.token();
      const asked = isEarlier(request) ? { ...form, [EARLIER]: 'yes' } : form;
      const to = await this.launches.login(asked, browser);
      setArriving(response, browser, this.settings);
      response.redirect(302, to);
    });
  }

  /** Whoever does not come in sees a page that says why; what concerns a platform is put on record. */
  async #orSay(request: Request, response: Response, work: () => Promise<void>): Promise<void> {
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ArrivalRefused)) throw error;
      const fault = await this.#noted(request, error);
      response.redirect(303, `/arrive/stopped/${fault}`);
    }
  }

  async #noted(request: Request, { fault, platformId }: ArrivalRefused): Promise<ArrivalFault> {
    const taken = await this.#refused.consume(networkOf(request.ip)).then(
      () => true,
      () => false,
    );
    if (!taken) return 'too-many';
    this.#logger.warn(`somebody was not let in: ${fault}`);
    const details = { fault, platform: platformId };
    await this.database.write(async (manager, emit) => {
      if (platformId !== null && isItsDoing(fault)) {
        await manager.update(
          LtiPlatform,
          { id: platformId },
          { arrivalFault: fault, arrivalFaultAt: this.clock.real() },
        );
      }
      emit({ action: 'platform-refused', actorId: null, details });
    });
    return fault;
  }
}

function formOf(request: Request): Form {
  const body: unknown = request.body;
  return typeof body === 'object' && body !== null ? (body as Form) : {};
}

/** Browsers say what they open a page for. */
function isFramed(request: Request): boolean {
  return ['iframe', 'frame', 'embed', 'object'].includes(request.headers['sec-fetch-dest'] as string);
}

/** What somebody is asked who comes from a platform; for the browser alone that was sent. */
@Public()
@Controller('lti/arrivals/:token')
export class ArrivalsController {
  constructor(
    private readonly arrivals: Arrivals,
    private readonly proofs: Proofs,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  @Get()
  one(
    @Param('token') token: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrivalView> {
    return this.#answer(response, this.arrivals.one(this.#at(token, request)));
  }

  @Post('begin')
  @HttpCode(200)
  begin(
    @Param('token') token: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrivalView> {
    return this.#answer(response, this.arrivals.begin(this.#at(token, request)));
  }

  @Post('account')
  @HttpCode(200)
  account(
    @Param('token') token: string,
    @Body() body: ArrivalAccountRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrivalView> {
    return this.#answer(response, this.arrivals.account(this.#at(token, request), body, networkOf(request.ip)));
  }

  @Post('mail')
  @HttpCode(204)
  mail(@Param('token') token: string, @Body() { email }: ArrivalMailRequest, @Req() request: Request): Promise<void> {
    return this.proofs.send(this.#at(token, request), email, networkOf(request.ip));
  }

  @Post('course')
  @HttpCode(200)
  course(
    @Param('token') token: string,
    @Body() body: ArrivalCourseRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrivalView> {
    return this.#answer(response, this.arrivals.course(this.#at(token, request), body));
  }

  @Post('role')
  @HttpCode(200)
  role(
    @Param('token') token: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrivalView> {
    return this.#answer(response, this.arrivals.role(this.#at(token, request)));
  }

  @Post('choice')
  @HttpCode(200)
  choose(
    @Param('token') token: string,
    @Body() body: ArrivalChoiceRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ArrivalView> {
    return this.#answer(response, this.arrivals.choose(this.#at(token, request), body));
  }

  #at(token: string, request: Request): At {
    return { token, browser: arrivingIn(request.headers.cookie, this.settings), userAgent: browserOf(request) };
  }

  async #answer(response: Response, arrived: Promise<Arrived>): Promise<ArrivalView> {
    const { view, session, framed } = await arrived;
    if (session !== null) setSessionCookie(response, session, this.settings, framed);
    return view;
  }
}

/** Links by mail. */
@Public()
@Controller('lti/proofs/:token')
export class ProofsController {
  constructor(private readonly proofs: Proofs) {}

  @Get()
  one(@Param('token') token: string): Promise<LtiProofView> {
    return this.proofs.one(token);
  }

  @Post()
  @HttpCode(204)
  confirm(@Param('token') token: string): Promise<void> {
    return this.proofs.confirm(token);
  }
}
