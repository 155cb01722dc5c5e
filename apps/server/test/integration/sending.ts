import { expect } from '@jest/globals'
import type { Audience, AudienceDetail, BodyOf, Delivery } from '@upper-field/contract'
import type { StandIns } from '@upper-field/standins'
import { createWorld, type World } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectNetworks, newList, startTestServer, type TestServer } from './harness'
import { untilIs } from './until'

const WORLD = { seed: 'deliveries', people: 400, consumers: 1000 }

const ACCOUNTS = {
  brassbell: { id: 'bb-4410', name: 'Wrenfold UK' },
  northpin: { id: '70-221', name: 'Wrenfold UK' },
  tallow: { id: 't.wren', name: 'Wrenfold UK' },
  marlpost: { id: '5090', name: 'Wrenfold EU' },
} as const
export type Network = keyof typeof ACCOUNTS

/** A list of people at home whose audiences are kept at the stand-ins' networks. */
export class Sending {
  private constructor(
    readonly server: TestServer,
    readonly standIns: StandIns,
    readonly world: World,
    /** The list that audiences are made of. */
    public listId: string,
  ) {}

  /** Starts everything, with the first of the people in the list. */
  static async start(people: number, settings: Record<string, string> = {}): Promise<Sending> {
    const server = await startTestServer(settings)
    const standIns = await connectNetworks(server, WORLD)
    const sending = new Sending(
      server,
      standIns,
      createWorld(WORLD.seed, WORLD),
      await newList(server.api, 'Home owners'),
    )
    await bringText(server.api, sending.listId, sending.csv(0, people))
    return sending
  }

  async stop(): Promise<void> {
    await this.expectKeptCounts()
    await this.standIns.stop()
    await this.server.stop()
  }

  csv(from: number, to: number): string {
    return [
      'first name,last name,phone,mail,country,zip',
      ...this.world.consumers
        .slice(from, to)
        .map(({ given, family, mobile, personalEmail, place, postalCode }) =>
          [given, family, mobile.e164, personalEmail, place.country, postalCode].join(','),
        ),
    ].join('\n')
  }

  makeAudience(network: Network, more: Partial<BodyOf<'makeAudience'>> = {}): Promise<Audience> {
    return this.server.api.call('makeAudience', {
      params: { listId: this.listId },
      body: { name: `At ${network}`, destination: network, account: ACCOUNTS[network], isWholeList: true, ...more },
    })
  }

  read(audienceId: string): Promise<AudienceDetail> {
    return this.server.api.call('readAudience', { params: { audienceId } })
  }

  async prepare(audienceId: string): Promise<AudienceDetail> {
    const edition = await this.server.api.call('prepareEdition', { params: { audienceId } })
    expect(await untilEnded(this.server.api, this.listId, edition.jobId)).toMatchObject({ state: 'done' })
    return this.read(audienceId)
  }

  async send(audienceId: string): Promise<Delivery> {
    const { difference, account } = await this.read(audienceId)
    const delivery = await this.server.api.call('deliverEdition', {
      params: { audienceId },
      body: { editionId: difference?.editionId ?? '', account: account.id },
    })
    await untilEnded(this.server.api, this.listId, delivery.jobId ?? '')
    const sent = (await this.read(audienceId)).deliveries.find(({ id }) => id === delivery.id)
    if (!sent) throw new Error('the delivery is gone')
    return sent
  }

  settled(audienceId: string): Promise<AudienceDetail> {
    return untilIs(
      () => this.read(audienceId),
      ({ state }) => !['received', 'matching'].includes(state),
    )
  }

  /** Whatever was sent, the number that is kept of an audience is that of its lines. */
  private async expectKeptCounts(): Promise<void> {
    const off = await this.server.sql(`
      select a.name, a.people, count(m.key) as lines from audiences a left join audience_members m on m.audience_id = a.id
      group by a.id having a.people <> count(m.key)`)
    expect(off).toEqual([])
  }

  /** What the network holds by its own books. */
  booksOf(network: Network, name: string) {
    const held = this.standIns
      .network(network)
      .books()
      .find((one) => one.name === name)
    if (!held) throw new Error(`${network} holds no "${name}"`)
    return held
  }
}
